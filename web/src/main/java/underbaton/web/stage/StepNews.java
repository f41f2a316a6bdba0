package underbaton.web.stage;

import java.util.Map;
import java.util.Optional;
import underbaton.core.engine.Step;
import underbaton.core.engine.music.Playing;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.patch.Patched;
import underbaton.core.rig.Device;
import underbaton.core.rig.Wiring;
import underbaton.core.score.Anchor;
import underbaton.core.signal.Hearing;
import underbaton.web.live.Live;
import underbaton.web.record.CameIn;
import underbaton.web.record.Recorder;

/** What a step of the show on the desk says to the record, to pages, and to the operator. Used by the performer's thread alone. */
final class StepNews {

    /** Who tells the operator. */
    @FunctionalInterface
    interface Troubles {
        void tell(int showId, String words);
    }

    private static final long SEEN_NANOS = 15_000_000;

    private final Recorder recorder;
    private final CameIn cameIn;
    private final Live live;
    private final Troubles troubles;
    /** As they were seen last. */
    private Map<Integer, Boolean> armed = Map.of();

    private boolean listens = true;
    private Wiring patch = Wiring.NONE;
    private int patchSet;
    /** Where the music was, as pages were told. */
    private Optional<Anchor> told = Optional.empty();

    StepNews(Recorder recorder, CameIn cameIn, Live live, Troubles troubles) {
        this.recorder = recorder;
        this.cameIn = cameIn;
        this.live = live;
        this.troubles = troubles;
    }

    /** Whether a listener took what came in. */
    static boolean called(Step step) {
        return step.happenings().stream()
                .anyMatch(h ->
                        h instanceof Happening.Heard heard && heard.outcome().isTaken());
    }

    /** On the performer's thread; returns at once. */
    void saw(int showId, Step step) {
        if (isDueToItsMachine(step)) {
            recorder.begin(showId);
        }
        if (called(step) && step.happenings().stream().anyMatch(Happening.Fired.class::isInstance)) {
            // A pedal's GO begins the run as well as the Desk's.
            recorder.begin(showId);
        }
        step.happenings().forEach(h -> {
            if (h instanceof Happening.Looped looped) {
                troubles.tell(showId, "relay “" + looped.relay() + "” " + looped.words());
            } else if (h instanceof Happening.Unanswered wrong) {
                troubles.tell(showId, machine(step, wrong.deviceId()) + " " + wrong.words());
                live.changed("lamps");
            } else if (h instanceof Happening.StaysOff off) {
                troubles.tell(
                        showId,
                        machine(step, off.deviceId()) + ": “" + off.phrase()
                                + "” stays off, it cannot be told to go on in its middle");
            }
        });
        Hearing hearing = step.next().hearing();
        if (hearing.armed() != armed || hearing.on() != listens) {
            armed = hearing.armed();
            listens = hearing.on();
            live.changed("listeners");
        }
        Patched patched = step.next().patched();
        if (patched.setId() != patchSet || patched.wiring() != patch) {
            patchSet = patched.setId();
            patch = patched.wiring();
            live.changed("patch");
        }
        recorder.saw(showId, step);
        cameIn.saw(showId, step);
        boolean ticked = step.happenings().stream().anyMatch(Happening.Ticked.class::isInstance)
                && step.happenings().stream().allMatch(Happening.Ticked.class::isInstance);
        if (ticked && isAsTold(step)) {
            return;
        }
        told = step.next().playing().map(Playing::anchor);
        boolean untaken = !step.happenings().isEmpty()
                && step.happenings().stream()
                        .allMatch(h -> h instanceof Happening.Heard heard
                                && !heard.outcome().isTaken());
        if (untaken) {
            return;
        }
        live.changed("desk");
        live.changed("hands");
        live.changed("playing");
        live.changed("view");
    }

    /** Whether an item begins because the machine by whose time it goes has come to it. */
    private static boolean isDueToItsMachine(Step step) {
        return step.next().follow().doing().doing().isLed()
                && step.happenings().stream().anyMatch(Happening.Began.class::isInstance);
    }

    /** Whether pages that count on by what they were told are right by now, as far as an eye sees. */
    private boolean isAsTold(Step step) {
        long now = step.next().nowNanos();
        Optional<Anchor> is = step.next().playing().map(Playing::anchor);
        return is.isPresent() == told.isPresent()
                && is.filter(a -> Math.abs(a.position(now) - told.get().position(now)) > SEEN_NANOS)
                        .isEmpty();
    }

    private static String machine(Step step, int deviceId) {
        return step.next().plan().device(deviceId).map(Device::name).orElse("a machine");
    }
}
