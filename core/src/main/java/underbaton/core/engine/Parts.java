package underbaton.core.engine;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.LongConsumer;
import java.util.function.LongSupplier;
import underbaton.core.engine.answer.Answers;
import underbaton.core.engine.call.Agenda;
import underbaton.core.engine.call.Calls;
import underbaton.core.engine.call.Corrections;
import underbaton.core.engine.call.DueCall;
import underbaton.core.engine.device.Devices;
import underbaton.core.engine.ear.Deeds;
import underbaton.core.engine.ear.Ears;
import underbaton.core.engine.ear.Listeners;
import underbaton.core.engine.ear.Reactions;
import underbaton.core.engine.ear.Relays;
import underbaton.core.engine.ear.SharedControls;
import underbaton.core.engine.follow.TimeTaking;
import underbaton.core.engine.instep.TimeGiving;
import underbaton.core.engine.key.HandCues;
import underbaton.core.engine.light.PadLights;
import underbaton.core.engine.move.Moves;
import underbaton.core.engine.music.Cues;
import underbaton.core.engine.music.Holds;
import underbaton.core.engine.music.Jumps;
import underbaton.core.engine.music.Music;
import underbaton.core.engine.music.Playing;
import underbaton.core.engine.operator.Operator;
import underbaton.core.engine.out.Outgoing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.engine.patch.Patching;
import underbaton.core.engine.patch.Sounds;
import underbaton.core.midi.Message;
import underbaton.core.signal.Deed;

/**
 * One step being taken: the parts of the engine, put together in the order in which they know each other. Each owns its slice of the
 * state; none knows of those that come behind it. Used once, by one thread, and thrown away; what it reads and what it leaves
 * behind never changes.
 *
 * <p>What is due at the same moment happens in this order: moves come to their ends, then what was called before leaves, then the music goes to where the machine is that leads it, then
 * the cue that follows, then what the playing item brings, then the time that machines are given, then steps of moves under way.
 */
final class Parts {

    final StepContext step;
    final Operator operator;
    final Devices devices;
    final Outgoing out;
    final Moves moves;
    final Sounds sounds;
    final Patching patching;
    final Agenda agenda;
    final Answers answers;
    final Calls calls;
    final Corrections corrections;
    final Music music;
    final Cues cues;
    final Jumps jumps;
    final Holds holds;
    final HandCues keys;
    final Relays relays;
    final SharedControls shared;
    final Ears ears;
    final PadLights lights;
    final TimeTaking taking;
    private final TimeGiving time;
    private final Listeners listeners;
    private final PlaybackState before;

    /** Orders by which nobody takes the music into his hands. */
    private static final Set<Class<?>> IS_NOBODYS = Set.of(
            Order.Pass.class,
            Order.Heard.class,
            Order.Adopt.class,
            Order.Follow.class,
            Order.Led.class,
            Order.Tap.class);

    Parts(PlaybackState s) {
        before = s;
        step = new StepContext(s.plan(), s.nowNanos(), s.straightUntil());
        operator = new Operator(step, s.operator());
        devices = new Devices(s.told(), s.absent());
        out = new Outgoing(step, s.wayOut(), devices.levels(), this::echo);
        moves = new Moves(step, devices, out, s.moves());
        sounds = new Sounds(step, devices, moves, out, s.sounding());
        patching = new Patching(step, operator, devices.levels(), out, sounds, s.patched());
        agenda = new Agenda(s.agenda());
        answers = new Answers(step, devices, moves, out, s.replies());
        calls = new Calls(step, devices, out, moves, sounds, patching, agenda, answers);
        corrections = new Corrections(step, devices, out, moves, sounds, agenda, calls);
        music = new Music(step, operator, s.music());
        cues = new Cues(step, music, devices, calls);
        jumps = new Jumps(step, operator, music, cues, calls, moves, agenda);
        holds = new Holds(step, devices, moves, agenda, calls, music);
        keys = new HandCues(step, operator, devices, calls, s.keys());
        listeners = new Listeners(step, keys, s.hearing());
        shared = new SharedControls(step, devices, out, moves, calls, listeners);
        relays = new Relays(step, operator, out, moves, sounds, calls, listeners, shared);
        Reactions reactions =
                new Reactions(step, operator, calls, keys, listeners, relays, shared, new OrdersOfSignals());
        lights = new PadLights(step, operator, devices, out, calls, keys, listeners, s.lights());
        taking = new TimeTaking(step, music, holds, jumps, this::release, s.follow());
        time = new TimeGiving(step, devices, out, music, s.inStep());
        ears = new Ears(step, patching, answers, listeners, reactions);
    }

    private void echo(int deviceId, Message message, long atNanos) {
        listeners.said(deviceId, message, atNanos);
        answers.left(deviceId, message, atNanos);
    }

    Listeners listeners() {
        return listeners;
    }

    /** The vamp that goes round is let go on; what was told of its next pass is taken back. */
    void release() {
        music.release().ifPresent(told -> corrections.takeBack(told.before(), told.calls()));
    }

    // ---- time

    /** Something that comes by itself. */
    private record Coming(LongSupplier nextNanos, LongConsumer comes) {}

    private List<Coming> coming() {
        return List.of(
                new Coming(operator::nextAsk, operator::stopAsking),
                new Coming(relays::nextNanos, relays::due),
                new Coming(answers::nextNanos, answers::due),
                new Coming(lights::nextNanos, due -> lights.show(music.state())),
                new Coming(
                        moves::nextEnd,
                        due -> moves.end(due, (call, cause) -> calls.make(DueCall.at(due, call, cause), false))),
                new Coming(agenda::nextNanos, due -> calls.makeFirstPending()),
                new Coming(taking::nextNanos, due -> taking.look()),
                new Coming(music::nextFollow, cues::fireFollowOn),
                new Coming(music::nextOfPlaying, cues::landDue),
                new Coming(time::nextNanos, due -> time.give()),
                new Coming(moves::nextStep, moves::step));
    }

    /** Does all that is due until a moment, that moment included. */
    void pass(long until) {
        List<Coming> inOrder = coming();
        while (true) {
            Coming first = null;
            long soonest = StepContext.NEVER;
            for (Coming each : inOrder) {
                long next = each.nextNanos.getAsLong();
                if (next < soonest) {
                    soonest = next;
                    first = each;
                }
            }
            if (first == null || soonest > until) {
                break;
            }
            step.advance(soonest);
            first.comes.accept(soonest);
        }
        step.advance(until);
    }

    /** When something comes by itself next, by the clock; far away when nothing does. */
    private long nextNanos() {
        return coming().stream().mapToLong(c -> c.nextNanos.getAsLong()).min().orElse(StepContext.NEVER);
    }

    // ---- orders

    /** An order is carried out, and what it has made due. */
    void carryOut(Order order) {
        Optional<Playing> before = music.playing();
        Orders.carryOut(this, order);
        if (!IS_NOBODYS.contains(order.getClass())) {
            taking.mayBeMoved(before);
        }
        shared.letDownLost();
        if (!(order instanceof Order.Pass)) {
            pass(step.now());
        }
    }

    /** What signals bring about are orders like any other. */
    private final class OrdersOfSignals implements Deeds {
        @Override
        public void give(Deed deed) {
            carryOut(Order.of(deed));
        }

        @Override
        public void standBy(int cueId) {
            carryOut(new Order.StandBy(cueId));
        }

        @Override
        public void play(int itemId, long fromNanos) {
            carryOut(new Order.Play(itemId, fromNanos));
        }
    }

    // ---- what it comes to

    /** Pads are told what has changed by the step. */
    void showLights() {
        lights.show(music.state());
    }

    PlaybackState state() {
        return new PlaybackState(
                step.plan(),
                step.now(),
                operator.state(),
                devices.told(),
                devices.absent(),
                out.state(),
                moves.state(),
                patching.state(),
                sounds.state(),
                agenda.state(),
                music.state(),
                keys.state(),
                listeners.state(),
                answers.state(),
                lights.state(),
                time.state(),
                taking.state(),
                before.straightUntil());
    }

    Step done() {
        return new Step(state(), step.messages(), step.happenings(), nextNanos());
    }
}
