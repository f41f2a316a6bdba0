package underbaton.core.engine;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import org.pcollections.PMap;
import org.pcollections.TreePMap;
import underbaton.core.engine.PlaybackState.FollowOn;
import underbaton.core.engine.PlaybackState.Later;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.FadeCurve;
import underbaton.core.plan.Level;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedMotion;
import underbaton.core.rig.Along;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Precautions;
import underbaton.core.rig.Speech.Timed;
import underbaton.core.rig.StepList;
import underbaton.core.signal.Hearing;
import underbaton.core.signal.SignalNumber;

/**
 * The state of a step that is being taken, and how devices are told: calls become messages, controls move, and what each device
 * has been told is kept. Used once, by one thread.
 */
abstract class Telling {

    /** A byte on a line of the MIDI 1.0 electrical specification: 31,250 baud, ten bits. */
    private static final long DIN_BYTE_NANOS = 320_000;

    private static final double HIGHEST = 127;

    static final long NEVER = Long.MAX_VALUE;

    OptionalLong straightUntil;
    final Told before;
    Plan plan;
    long now;
    int standby;
    Optional<PlaybackState.Fired> last;
    Optional<FollowOn> followOn;
    Optional<Playing> playing;
    Begun begun;
    Hand hand;
    TreePMap<Later.Key, Later> agenda;
    PMap<Control, Move> moves;
    PMap<Connection, Long> lines;
    PMap<Integer, DeviceState> devices;
    final LevelsNow levels;

    PMap<Integer, Away> away;
    boolean stopped;
    Hearing hearing;
    HeldUp heldUp;
    Patched patched;
    Sounding sounding;
    /** Above that of all that is on the agenda; below 0 before it was asked for. */
    private long count = -1;

    private final long broughtBefore;

    final List<ScheduledMessage> messages = new ArrayList<>();
    final List<Happening> happenings = new ArrayList<>();

    Telling(PlaybackState s) {
        plan = s.plan();
        now = s.nowNanos();
        standby = s.standby();
        last = s.last();
        followOn = s.followOn();
        playing = s.playing();
        begun = s.begun();
        hand = s.hand();
        agenda = s.agenda();
        moves = s.moves();
        lines = s.lines();
        devices = s.told().devices();
        levels = new LevelsNow(s.told().levels());
        before = s.told();
        away = s.away();
        stopped = s.stopped();
        hearing = s.hearing();
        heldUp = s.heldUp();
        patched = s.patched();
        sounding = s.sounding();
        straightUntil = s.straightUntil();
        broughtBefore = s.brought();
    }

    Step done() {
        PMap<Control, Level> all = levels.frozen();
        boolean same = devices == before.devices() && all == before.levels();
        Told told = same ? before : new Told(devices, all);
        PlaybackState next = new PlaybackState(
                plan,
                now,
                standby,
                last,
                followOn,
                playing,
                begun,
                hand,
                agenda,
                moves,
                lines,
                told,
                away,
                stopped,
                hearing,
                heldUp,
                patched,
                sounding,
                broughtBefore + messages.size(),
                straightUntil);
        return new Step(next, messages, happenings, nextNanos());
    }

    /** When something comes by itself next, by the clock; far away when nothing does. */
    abstract long nextNanos();

    void endMove(long due) {
        for (Move each : List.copyOf(moves.values())) {
            if (each.endNanos() != due) {
                continue;
            }
            Move move = each;
            while (move.nextNanos() <= due) {
                sendStep(move);
                move = move.stepped(gap(move.motion().control()));
            }
            moves = moves.minus(move.motion().control());
            PlannedCall then = move.motion().then().orElse(null);
            if (then != null) {
                make(then, due, due, move.cause().then(then.phrase()), false);
            }
        }
    }

    void stepMoves(long due) {
        for (Move each : moves.values()) {
            Move move = each;
            while (move.nextNanos() <= due) {
                sendStep(move);
                move = move.stepped(gap(move.motion().control()));
            }
            if (move != each) {
                moves = moves.plus(move.motion().control(), move);
            }
        }
    }

    void sendStep(Move move) {
        FadeCurve.Step step = move.next().orElseThrow();
        long due = move.began() + step.atNanos();
        Control control = move.motion().control();
        Away a = away.get(control.deviceId());
        if (a != null && a.back()) {
            away = away.plus(control.deviceId(), a.with(control, move.at(due)));
        }
        emit(control.deviceId(), step.message(), due, due, move.cause(), false);
    }

    /** Several that move on one device share its line. */
    long gap(Control control) {
        long gap = FadeCurve.STEP_NANOS;
        for (Control other : moves.keySet()) {
            if (other.deviceId() == control.deviceId() && !other.equals(control)) {
                gap += FadeCurve.STEP_NANOS;
            }
        }
        return gap;
    }

    void begin(PlannedMotion motion, long due, Cause cause) {
        Control control = motion.control();
        Move before = moves.get(control);
        Level known = levels.get(control);
        OptionalDouble stands = before != null
                ? OptionalDouble.of(before.at(due).exact())
                : known == null ? plan.startOf(cause.cue(), control) : OptionalDouble.of(known.exact());
        OptionalDouble start = stands.isPresent() ? stands : untold(control);
        FadeCurve curve = motion.from(start);
        if (straightUntil.isPresent() && stands.isPresent()) {
            happenings.add(new Happening.Moves(cause.cue(), control, stands.getAsDouble()));
        }
        // What nobody knows is said in any case; what the control said last is not said again.
        int said = before != null ? before.saidOn(curve) : known == null ? -1 : curve.placeOf(known.exact());
        moves = moves.plus(control, new Move(motion, curve, due, curve.next(0, said, gap(control)), said, cause));
        levels.put(control, motion.level(curve.restsAt()));
    }

    /** Where the rig says that a move begins of which nobody knows where it begins. */
    private OptionalDouble untold(Control control) {
        return switch (plan.device(control.deviceId())
                .map(d -> d.care().untoldFade())
                .orElse(Precautions.UntoldFade.AT_ONCE)) {
            case AT_ONCE -> OptionalDouble.empty();
            case FROM_LOWEST -> OptionalDouble.of(0);
            case FROM_HIGHEST -> OptionalDouble.of(HIGHEST);
        };
    }

    void halt() {
        for (Move move : moves.values()) {
            Control control = move.motion().control();
            move.toldAt(now).ifPresentOrElse(level -> levels.put(control, level), () -> levels.remove(control));
        }
        moves = moves.minusAll(moves.keySet());
    }

    void goOn(Move move, long at, Cause cause) {
        Control control = move.motion().control();
        long since = at - move.began();
        Level level = move.at(at);
        Level known = CatchUp.told(moves.get(control), levels.get(control), at);
        if (known == null || !known.isAlso(level)) {
            emit(control.deviceId(), level.message(), at, at, cause, false);
        }
        moves = moves.plus(control, move.from(since, level.exact(), gap(control), cause));
        levels.put(control, motionRests(move));
    }

    static Level motionRests(Move move) {
        return move.motion().level(move.curve().restsAt());
    }

    /** A call to be made, and what for. @param wanted when it should have been made */
    record Made(PlannedCall call, long due, long wanted, Cause cause) {}

    /** Calls of one instant: each device gets its programs first, whichever cue they come from. */
    void makeAll(List<Made> calls) {
        if (calls.size() > 1) {
            calls.sort(Comparator.comparingInt(m -> plan.rank(m.call)));
        }
        for (Made m : calls) {
            if (m.due > now) {
                later(m.due, new Later.ALaterCall(m.call, m.cause));
            } else {
                make(m.call, m.due, m.wanted, m.cause, m.wanted < m.due);
            }
        }
    }

    void later(long due, Later what) {
        if (count < 0) {
            // What is due last need not have come last: with its count, one of the same moment would take another's
            // place.
            count = agenda.keySet().stream().mapToLong(Later.Key::count).max().orElse(-1) + 1;
        }
        agenda = agenda.plus(new Later.Key(due, count++), what);
    }

    void make(PlannedCall call, long due, long wanted, Cause cause, boolean beforeStart) {
        if (!agenda.isEmpty() && !cause.mends() && straightUntil.isEmpty()) {
            overtakeMends(call);
            OptionalLong steps = lastMendingStep(call);
            if (steps.isPresent()) {
                // A machine that steps is stepped on from where it is being brought.
                later(
                        steps.getAsLong() + pause(plan.device(call.deviceId()).orElseThrow(), call),
                        new Later.ALaterCall(call, cause));
                return;
            }
        }
        overtake(call);
        levels.after(call);
        Away a = away.get(call.deviceId());
        if (a != null && a.back()) {
            away = away.plus(call.deviceId(), a.after(call, due, plan.stepLists(call.deviceId())));
        }
        DeviceState after = told(call.deviceId()).after(call, due, plan.stepLists(call.deviceId()));
        boolean starts = call.effect().kind() == Effect.Kind.STARTS && cause.cueId() != 0;
        tell(call.deviceId(), starts ? after.setGoingBy(itemOf(cause.cueId()), Slot.key(call.effect())) : after);
        for (Timed timed : call.messages()) {
            if (timed.atMs() == 0) {
                emit(call.deviceId(), timed.message(), due, wanted, cause, beforeStart);
            } else {
                later(
                        due + timed.atMs() * 1_000_000L,
                        new Later.ALaterMessage(call.deviceId(), timed.message(), cause));
            }
        }
        if (call.motion().isPresent()) {
            begin(call.motion().get(), due, cause);
        }
        if (call.deviceId() == plan.patchBay()) {
            loadPatch(call, cause);
        }
    }

    private int itemOf(int cueId) {
        int index = plan.indexOf(cueId);
        return index < 0 ? 0 : plan.cues().get(index).item().id();
    }

    /** What a call sets is no longer under way; a scene sets all that its device has. */
    void overtake(PlannedCall call) {
        if (moves.isEmpty()) {
            return;
        }
        moves = moves.minusAll(call.levels().keySet());
        if (call.effect().takesAlong(Along.LEVELS)) {
            haltAll(call.deviceId());
        }
    }

    /** What an earlier catch-up was still to set there is not set over it. */
    private void overtakeMends(PlannedCall call) {
        for (Map.Entry<Later.Key, Later> later : agenda.entrySet()) {
            boolean overtaken = later.getValue() instanceof Later.ALaterCall waits
                            && waits.cause().mends()
                            && setsTheSame(waits.call(), call)
                    || later.getValue() instanceof Later.AMove moves
                            && moves.cause().mends()
                            && sets(call, moves.move().motion().control());
            agenda = overtaken ? agenda.minus(later.getKey()) : agenda;
        }
    }

    /** When the last step leaves by which a catch-up still brings a list to its place; empty when none does. */
    private OptionalLong lastMendingStep(PlannedCall call) {
        if (call.effect().kind() != Effect.Kind.STEPS) {
            return OptionalLong.empty();
        }
        return agenda.entrySet().stream()
                .filter(e -> e.getValue() instanceof Later.ALaterCall waits
                        && waits.cause().mends()
                        && waits.call().deviceId() == call.deviceId()
                        && waits.call().effect().kind() != Effect.Kind.LEVELS
                        && !waits.call().effect().takesASlot()
                        && Slot.key(waits.call().effect()).equals(Slot.key(call.effect())))
                .mapToLong(e -> e.getKey().dueNanos())
                .max();
    }

    private static boolean setsTheSame(PlannedCall waits, PlannedCall call) {
        if (waits.deviceId() != call.deviceId()) {
            return false;
        }
        Effect.Kind kind = waits.effect().kind();
        if (kind == Effect.Kind.STEPS || kind == Effect.Kind.SETS) {
            boolean sets = call.effect().kind() == Effect.Kind.SETS
                    && Slot.key(waits.effect()).equals(Slot.key(call.effect()));
            return sets || call.effect().takesAlong(Along.LISTS);
        }
        if (waits.effect().takesASlot()) {
            boolean all = call.effect().kind() == Effect.Kind.STOPS
                            && Slot.key(call.effect()).isEmpty()
                    || kind == Effect.Kind.HOLDS && call.effect().takesAlong(Along.LEVELS);
            boolean same = Slot.key(waits.effect()).equals(Slot.key(call.effect()));
            return call.effect().takesASlot() && (all || same);
        }
        return !waits.levels().isEmpty() && waits.levels().keySet().stream().allMatch(control -> sets(call, control));
    }

    private static boolean sets(PlannedCall call, Control control) {
        return call.levels().containsKey(control)
                || call.motion().filter(m -> m.control().equals(control)).isPresent()
                || call.deviceId() == control.deviceId() && call.effect().takesAlong(Along.LEVELS);
    }

    void haltAll(int deviceId) {
        for (Control control : moves.keySet()) {
            moves = control.deviceId() == deviceId ? moves.minus(control) : moves;
        }
    }

    DeviceState told(int deviceId) {
        return devices.getOrDefault(deviceId, DeviceState.UNKNOWN);
    }

    void tell(int deviceId, DeviceState state) {
        if (state != devices.get(deviceId)) {
            devices = devices.plus(deviceId, state);
        }
    }

    /** What shares a line of one byte after the other leaves when the line is free; a machine that is out gets nothing. */
    void emit(int deviceId, Message message, long due, long wanted, Cause cause, boolean beforeStart) {
        if (plan.out().devices().contains(deviceId)) {
            return;
        }
        long at = due;
        Optional<Connection> line = plan.slowLine(deviceId);
        if (line.isPresent() && message instanceof MidiMessage midi) {
            at = Math.max(due, lines.getOrDefault(line.get(), due));
            lines = lines.plus(line.get(), at + midi.encode().length() * DIN_BYTE_NANOS);
        }
        Message said = heldUp.isEmpty() ? message : heldUp(deviceId, message);
        messages.add(new ScheduledMessage(deviceId, said, at, wanted, now, cause, beforeStart));
        if (!plan.listeners().isEmpty() && straightUntil.isEmpty()) {
            hearing = hearing.saying(deviceId, said, at);
        }
    }

    /** A control that a relay holds up gets no less than that. */
    private Message heldUp(int deviceId, Message message) {
        Control control = Control.of(deviceId, message);
        Optional<Level> floor = heldUp.of(control);
        Level known = levels.get(control);
        if (floor.isEmpty() || known == null) {
            return message;
        }
        Message atFloor = known.at(floor.get().exact()).message();
        OptionalDouble least = SignalNumber.last(atFloor);
        OptionalDouble says = SignalNumber.last(message);
        return least.isPresent() && says.isPresent() && says.getAsDouble() < least.getAsDouble() ? atFloor : message;
    }

    /** A message that no phrase says sets a control that the book knows. */
    void level(int deviceId, Message message) {
        Control control = Control.of(deviceId, message);
        Level known = levels.get(control);
        if (known != null && message instanceof ControlChange change) {
            moves = moves.minus(control);
            levels.put(control, known.at(change.value()));
        }
    }

    /** Something that is played goes on at once; it is not remembered as ours, for hands play the same again. */
    void pass(int deviceId, Message message, Cause cause) {
        if (!plan.out().devices().contains(deviceId)) {
            messages.add(new ScheduledMessage(deviceId, message, now, now, now, cause, false));
        }
    }

    /** The patch set that a call names is in use from now on; calls to any other machine change nothing. */
    abstract void loadPatch(PlannedCall call, Cause cause);

    /** How long a device is left alone after a call that is not part of a cue. */
    static long pause(Device device, PlannedCall call) {
        Effect.Kind kind = call.effect().kind();
        boolean steps = kind == Effect.Kind.STEPS || kind == Effect.Kind.SETS;
        int gapMs =
                steps ? device.stepList(call.effect().of()).map(StepList::gapMs).orElse(0) : 0;
        return (gapMs + (call.isProgram() ? device.settleMs() : 0)) * 1_000_000L;
    }
}
