package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import underbaton.core.engine.music.Playing;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SystemCommon.SongPosition;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem.VampSpan;
import underbaton.core.rig.Device;
import underbaton.core.score.TempoMap;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;

/** A show being played, and the machines that hear what is sent while they are switched on; they know bytes and nothing else. */
class WalkedWorld {

    static final long SECOND = 1_000_000_000L;
    private static final long LOOK = 20_000_000L;

    /** A machine that goes by the clock is at most so far from the music: a nudge is made up for by waiting, or by two at once. */
    private static final int MOST_CLOCKS_OFF = 9;

    private static final int CLOCK_TICKS = 40;

    final Machines machines;
    private final ClockFollower follower = new ClockFollower();
    final Set<Integer> off = new HashSet<>();
    PlaybackState state;
    long wake;

    WalkedWorld(Plan plan, int song, long nanos) {
        machines = new Machines(song);
        state = PlaybackState.of(plan, nanos);
        take(Engine.step(state, Event.pass(nanos)));
    }

    void order(Order order) {
        take(Engine.step(state, Event.of(state.nowNanos(), order)));
    }

    /** The keyboard in the pit says something. */
    void hear(MidiMessage message) {
        Device pit = state.plan().devices().stream()
                .filter(d -> d.name().equals("Pit"))
                .findFirst()
                .orElseThrow();
        order(new Order.Heard(Source.of(pit), Signal.of(message, state.nowNanos())));
    }

    void pass(long nanos) {
        passTo(state.nowNanos() + nanos);
    }

    void passTo(long moment) {
        take(Engine.step(state, Event.pass(moment)));
    }

    void take(Step step) {
        state = step.next();
        wake = step.wakeNanos();
        for (ScheduledMessage m : step.messages()) {
            if (!off.contains(m.deviceId())) {
                hear(m);
            }
        }
        goesByTheClock();
        for (Happening happening : step.happenings()) {
            happened(happening);
        }
    }

    private void hear(ScheduledMessage m) {
        boolean time = m.message() instanceof RealTime || m.message() instanceof SongPosition;
        if (time && m.deviceId() == clocked()) {
            follower.hear(((MidiMessage) m.message()).encode());
        } else {
            machines.hear(m.message(), m.dueNanos());
        }
    }

    private int clocked() {
        return state.plan().inStep().stream().mapToInt(Device::id).findFirst().orElse(0);
    }

    /** Who goes by the clock stands when the music stands, and is where the music is. */
    private void goesByTheClock() {
        int id = clocked();
        boolean there = id != 0
                && !off.contains(id)
                && !state.absent().containsKey(id)
                && !state.plan().out().devices().contains(id);
        if (!there) {
            return;
        }
        assertThat(follower.wrong()).isEmpty();
        Optional<Playing> music = state.playing().filter(p -> !p.paused());
        if (!follower.runs()) {
            return;
        }
        assertThat(music).as("it stands when the music stands").isPresent();
        Playing p = music.get();
        TempoMap tempi = p.item().times().orElseThrow().tempi();
        long at = tempi.tick(Math.max(0, p.position(state.nowNanos())));
        assertThat(Math.abs(follower.next() - at / CLOCK_TICKS))
                .as("clock %d where the music is at tick %d", follower.next(), at)
                .isLessThanOrEqualTo(MOST_CLOCKS_OFF);
    }

    void happened(Happening happening) {}

    /** The music plays on for so long, and each vamp is left at the end of the pass that it is in. */
    void playOn(long nanos) {
        long end = state.nowNanos() + nanos;
        while (state.nowNanos() < end) {
            Playing p = state.playing().orElse(null);
            if (p == null || !p.vamping() || p.paused()) {
                boolean straightOn = p == null || p.paused() || p.vamp().isEmpty();
                long vamp = straightOn ? end : p.dueAt(p.vamp().get().fromNanos());
                passTo(Math.min(end, vamp > state.nowNanos() ? vamp : state.nowNanos() + LOOK));
                continue;
            }
            VampSpan vamp = p.vamp().orElseThrow();
            long last = p.dueAt(vamp.toNanos()) - 1;
            if (last > state.nowNanos()) {
                passTo(Math.min(end, last));
            }
            if (state.nowNanos() < end
                    && state.playing().filter(Playing::vamping).isPresent()) {
                order(new Order.Release());
                pass(2);
            }
        }
    }

    Map<String, String> parts() {
        return machines.parts(state.nowNanos());
    }

    int index(PlannedCue cue) {
        return state.plan().indexOf(cue);
    }
}
