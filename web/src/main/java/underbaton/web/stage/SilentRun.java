package underbaton.web.stage;

import java.util.List;
import java.util.Set;
import underbaton.core.engine.DryRun;
import underbaton.core.engine.Engine;
import underbaton.core.engine.Event;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.loop.Clock;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.Message;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.rig.Numbering;
import underbaton.core.signal.Learning;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;

/**
 * Plays a show with all its orders where nobody hears it: a virtual machine is slow the first times it does a thing, and the first
 * GO into a song, or the first catch-up of the night, must not be the one that pays.
 */
final class SilentRun {

    private static final long PATIENCE_NANOS = 2_000_000_000L;
    private static final long LOOK_NANOS = 700_000_000L;
    private static final int ROUNDS = 12;

    private final Clock clock;
    private final long until;
    private final Plan plan;
    private final DryRun run;
    private PlaybackState state;

    SilentRun(Clock clock, Plan plan, DryRun run) {
        this.clock = clock;
        this.until = clock.nanos() + PATIENCE_NANOS;
        this.plan = plan;
        this.run = run;
        this.state = PlaybackState.of(plan, 0);
    }

    /** Returns after some rounds, or after two seconds. */
    void play() {
        for (int round = 0; round < ROUNDS && isInTime(); round++) {
            state = PlaybackState.of(plan, state.nowNanos());
            for (int i = plan.waitingFrom(0); i < plan.cues().size() && isInTime(); i = plan.waitingFrom(i + 1)) {
                through(plan.cues().get(i), round);
            }
            plan.listeners().forEach(this::hear);
        }
    }

    private boolean isInTime() {
        return clock.nanos() - until < 0;
    }

    private void through(PlannedCue cue, int round) {
        order(new Order.StandBy(cue.cueId()));
        if (round % 2 == 1) {
            order(new Order.Leave(cue.cueId()));
            order(new Order.CatchUp(run.before(plan.indexOf(cue)), Set.of()));
        }
        order(new Order.Go());
        pass();
        int item = cue.item().id();
        List<Order> others = List.of(
                new Order.Hold(),
                new Order.Resume(),
                new Order.Play(item, LOOK_NANOS),
                new Order.Locate(0),
                new Order.StopAll());
        order(others.get((cue.cueId() + round) % others.size()));
        pass();
    }

    private void hear(Listener listener) {
        Source source = listener.from().stream()
                .flatMap(id -> plan.device(id).stream())
                .findFirst()
                .or(() -> plan.devices().stream().findFirst())
                .map(Source::of)
                .orElse(new Source(Source.OTHERS, "nobody", Numbering.WIRE));
        int channel = listener.channel().orElse(0);
        for (Message message : Learning.examples(listener.pattern(), channel)) {
            if (isInTime()) {
                order(new Order.Heard(source, new Signal(message, Bytes.NONE, state.nowNanos())));
            }
        }
        pass();
    }

    private void order(Order order) {
        state = Engine.step(state, Event.of(state.nowNanos(), order)).next();
    }

    private void pass() {
        state = Engine.step(state, Event.pass(state.nowNanos() + LOOK_NANOS)).next();
    }
}
