package underbaton.core.engine.instep;

import java.util.Optional;
import org.pcollections.PMap;
import underbaton.core.engine.device.Devices;
import underbaton.core.engine.music.Music;
import underbaton.core.engine.music.Playing;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.Outgoing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.midi.FullFrame;
import underbaton.core.midi.MachineControl;
import underbaton.core.midi.MachineControl.Command;
import underbaton.core.midi.Message;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.TimeCode;
import underbaton.core.rig.Device;
import underbaton.core.rig.InStep;
import underbaton.core.rig.InStep.Vamping;
import underbaton.core.score.Anchor;
import underbaton.core.score.Score;
import underbaton.core.score.TempoMap;

/**
 * Gives machines the time of the music while a step is taken: clocks, song positions, time code, machine control.
 *
 * <p>It looks at where the music is and compares that with what each machine was given: where both agree, the next clock or quarter
 * frame is due at its place; where they do not, that is due at once. So whatever moves the music (a jump, a hold, a vamp, an edit, a
 * pace) needs to tell nobody. A place that is a little off is reached by clocks that come a little sooner or later; any other is
 * stop, position, continue. A machine that could not hear, or of which nobody knows what it was told, is stopped
 * first and told the place as soon as it hears. Where the code of an item begins in the
 * day is looked up at each new place and no sooner, so that no edit makes a film jump that runs. Not thread-safe, used once.
 */
public final class TimeGiving {

    /** All machines of a line (RP-013). */
    private static final int EVERYONE = 127;

    /** A place is the same when it is nearer than the rounding of a pace, ns. */
    private static final long SAME_NANOS = 1_000;

    private final StepContext step;
    private final Devices devices;
    private final Outgoing out;
    private final Music music;
    private PMap<Integer, Given> given;

    /** Made anew for each step, of the parts that it asks. */
    public TimeGiving(StepContext step, Devices devices, Outgoing out, Music music, InStepState before) {
        this.step = step;
        this.devices = devices;
        this.out = out;
        this.music = music;
        this.given = before.given();
    }

    /** The part's own record as it stands now: what the next step begins with. */
    public InStepState state() {
        return new InStepState(given);
    }

    // ---- what time brings

    /** When a machine is to be told something next, by the clock of the events: now where the music is not where it was told. */
    public long nextNanos() {
        if (step.isDryRun() || step.plan().inStep().isEmpty() && given.isEmpty()) {
            return StepContext.NEVER;
        }
        long next = StepContext.NEVER;
        for (Device device : step.plan().inStep()) {
            Given has = given.get(device.id());
            if (!isAsToldTo(device, has)) {
                return step.now();
            }
            next = has == null ? next : Math.min(next, has.nextNanos());
        }
        return given.keySet().stream().allMatch(this::isStillGiven) ? next : step.now();
    }

    /** Tells all that is due at this moment. */
    public void give() {
        for (int id : given.keySet()) {
            if (!isStillGiven(id)) {
                giveUp(id);
            }
        }
        for (Device device : step.plan().inStep()) {
            if (!isAsToldTo(device, given.get(device.id()))) {
                follow(device);
            }
            Given has = given.get(device.id());
            if (has != null && has.nextNanos() <= step.now()) {
                given = given.plus(device.id(), tick(device.id(), has));
            }
        }
    }

    private boolean isStillGiven(int deviceId) {
        return step.plan().device(deviceId).flatMap(Device::inStep).isPresent();
    }

    private void giveUp(int deviceId) {
        Given has = given.get(deviceId);
        if (step.plan().device(deviceId).isPresent()) {
            stop(deviceId, has);
        }
        given = given.minus(deviceId);
    }

    private Given tick(int deviceId, Given has) {
        Given now = has;
        if (now.beats().isPresent()
                && now.anchor().dueAt(now.beats().get().nextNanos(now.tempi().orElseThrow())) <= step.now()) {
            Beats beats = now.beats().get();
            if (beats.begins() && beats.canBeTold()) {
                send(deviceId, beats.startsAtTheTop() ? RealTime.START : RealTime.CONTINUE);
            }
            send(deviceId, RealTime.CLOCK);
            now = now.with(Optional.of(beats.sent()), now.frames());
        }
        if (now.how().code() && now.anchor().dueAt(now.frames().nextNanos()) <= step.now()) {
            send(deviceId, now.frames().message());
            now = now.with(now.beats(), now.frames().sent());
        }
        return now;
    }

    // ---- where the music is

    private boolean hears(Device device) {
        return devices.hears(device.id()) && !step.plan().out().devices().contains(device.id());
    }

    private static Optional<TempoMap> tempi(Playing playing) {
        return playing.item().times().map(Score.Times::tempi);
    }

    /** Whether a machine was told just where the music is. */
    private boolean isAsToldTo(Device device, Given has) {
        if (!hears(device)) {
            return has == null || has.isAway();
        }
        Optional<Playing> playing = music.playing();
        if (has == null) {
            return playing.isEmpty();
        }
        if (playing.isEmpty()) {
            return has.itemId() == 0;
        }
        Playing p = playing.get();
        boolean same = has.itemId() == p.item().item().id()
                && has.how().equals(device.inStep().orElseThrow())
                && has.runs() != p.paused();
        return same
                && (p.paused()
                        ? has.place() == p.position(step.now())
                        : has.anchor().equals(p.anchor()) && has.tempi().equals(tempi(p)));
    }

    private void follow(Device device) {
        int id = device.id();
        Given has = given.get(id);
        if (!hears(device)) {
            given = given.plus(id, has.away());
        } else if (music.playing().isEmpty()) {
            stop(id, has);
            given = given.plus(id, has.resting());
        } else {
            given = given.plus(id, following(device, has, music.playing().get()));
        }
    }

    private Given following(Device device, Given has, Playing p) {
        InStep how = device.inStep().orElseThrow();
        boolean known =
                has != null && has.itemId() == p.item().item().id() && has.how().equals(how);
        if (known && has.runs() && !p.paused()) {
            Given moved = moved(has, p);
            if (isNear(moved, p)) {
                return moved;
            }
        }
        if (has == null) {
            // Nobody knows what it was told before us.
            halt(device.id(), how, how.clock() && tempi(p).isPresent());
        } else {
            stop(device.id(), has);
        }
        boolean stands =
                known && has.runs() && p.paused() && isSame(has.anchor().position(step.now()), p.position(step.now()));
        return stands ? has.standing(p.position(step.now())) : located(device.id(), how, p);
    }

    /** By the anchor of the music as it is now; through a vamp the machine counts on where it is said to. */
    private Given moved(Given has, Playing p) {
        Given by = has.by(tempi(p), p.anchor());
        long from = has.anchor().position(step.now());
        long to = p.anchor().position(step.now());
        boolean counts = has.how().vamps() == Vamping.COUNTS_ON
                && has.tempi().equals(by.tempi())
                && turns(has.anchor(), p, from, to);
        return counts
                ? by.with(
                        by.beats().map(b -> b.countingOn(by.tempi().orElseThrow(), from, to)),
                        by.frames().countingOn(from, to))
                : by;
    }

    /** Whether a vamp goes round or is left: that moves the music by an exact amount, and the anchor keeps its moment. */
    private static boolean turns(Anchor was, Playing p, long from, long to) {
        return was.atNanos() == p.anchor().atNanos()
                && was.permille() == p.anchor().permille()
                && p.item().vamps().stream()
                        .anyMatch(v -> isSame(from, v.toNanos()) && isSame(to, v.fromNanos())
                                || isSame(to, v.toNanos()) && from > v.fromNanos() && from < v.toNanos());
    }

    private static boolean isSame(long place, long other) {
        return Math.abs(place - other) <= SAME_NANOS;
    }

    private boolean isNear(Given has, Playing p) {
        long position = p.position(step.now());
        boolean counts = has.how().clock() && has.tempi().isPresent();
        return counts == has.beats().isPresent()
                && has.beats()
                        .filter(b -> !b.isNear(has.tempi().orElseThrow(), position))
                        .isEmpty()
                && (!has.how().code() && !has.how().transport() || has.frames().isNear(position));
    }

    // ---- telling

    /** The machine is told where the music is, and runs from there or stands there. */
    private Given located(int deviceId, InStep how, Playing p) {
        long position = p.position(step.now());
        Optional<TempoMap> tempi = tempi(p);
        Optional<Beats> beats = tempi.filter(t -> how.clock()).map(t -> Beats.from(t, position));
        int itemId = p.item().item().id();
        Frames frames = Frames.from(how.rate(), step.plan().firstFrame(itemId, how.rate()), position);
        beats.filter(b -> b.canBeTold() && (p.paused() || !b.startsAtTheTop()))
                .ifPresent(b -> send(deviceId, b.place()));
        TimeCode place = p.paused() ? frames.at(position) : frames.place();
        if (how.code()) {
            out.emit(deviceId, new FullFrame(EVERYONE, place), cause());
        }
        if (how.transport()) {
            out.emit(deviceId, MachineControl.locate(EVERYONE, frames.at(position)), cause());
            if (!p.paused()) {
                out.emit(deviceId, MachineControl.of(EVERYONE, Command.DEFERRED_PLAY), cause());
            }
        }
        return new Given(how, itemId, tempi, p.anchor(), !p.paused(), position, beats, frames);
    }

    private void stop(int deviceId, Given has) {
        if (has.runs()) {
            halt(deviceId, has.how(), has.beats().filter(b -> !b.begins()).isPresent());
        }
    }

    private void halt(int deviceId, InStep how, boolean counts) {
        if (counts) {
            send(deviceId, RealTime.STOP);
        }
        if (how.transport()) {
            out.emit(deviceId, MachineControl.of(EVERYONE, Command.STOP), cause());
        }
    }

    /** At its moment, also where the line is busy: such bytes may stand inside a message. */
    private void send(int deviceId, Message message) {
        out.play(deviceId, message, cause());
    }

    private Cause cause() {
        return Cause.outside("in step", step.now());
    }
}
