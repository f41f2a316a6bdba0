package underbaton.core.engine.move;

import java.util.List;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.function.IntPredicate;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.engine.device.DeviceState;
import underbaton.core.engine.device.Devices;
import underbaton.core.engine.device.LevelsNow;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.Outgoing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.Message;
import underbaton.core.plan.FadeCurve;
import underbaton.core.plan.Level;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedMotion;
import underbaton.core.rig.Along;
import underbaton.core.rig.Control;
import underbaton.core.rig.Precautions.UntoldFade;

/**
 * The controls that are under way while a step is taken: fades and waves.
 *
 * <p>Holds at all times: of a control under way, {@link Devices#levels()} say where it will end, and its {@link Move} what it was told
 * last. Not thread-safe, used once.
 */
public final class Moves {

    private static final double HIGHEST = 127;

    private final StepContext step;
    private final Devices devices;
    private final LevelsNow levels;
    private final Outgoing out;
    private PMap<Control, Move> moves;

    /** Made anew for each step, of the parts that it asks. */
    public Moves(StepContext step, Devices devices, Outgoing out, PMap<Control, Move> before) {
        this.step = step;
        this.devices = devices;
        this.levels = devices.levels();
        this.out = out;
        this.moves = before;
    }

    /** The part's own record as it stands now: what the next step begins with. */
    public PMap<Control, Move> state() {
        return moves;
    }

    /** Whether something moves this control by itself. */
    public boolean isMoving(Control control) {
        return moves.containsKey(control);
    }

    // ---- what is due

    /** When the first of them comes to its end; far away for none. */
    public long nextEnd() {
        long end = StepContext.NEVER;
        if (moves.isEmpty()) {
            return end;
        }
        for (Move move : moves.values()) {
            end = Math.min(end, move.endNanos());
        }
        return end;
    }

    /** When the next step of any of them leaves; far away for none. */
    public long nextStep() {
        long next = StepContext.NEVER;
        if (moves.isEmpty()) {
            return next;
        }
        for (Move move : moves.values()) {
            next = Math.min(next, move.nextNanos());
        }
        return next;
    }

    /** Those that end at a moment come to their ends. @param then gets what is called when one has, before the next one ends */
    public void end(long due, BiConsumer<PlannedCall, Cause> then) {
        for (Move each : List.copyOf(moves.values())) {
            if (each.endNanos() == due) {
                stepped(each, due);
                moves = moves.minus(each.motion().control());
                each.motion()
                        .then()
                        .ifPresent(call -> then.accept(call, each.cause().then(call.phrase())));
            }
        }
    }

    /** What is due of those under way is told. */
    public void step(long due) {
        for (Move each : moves.values()) {
            Move move = stepped(each, due);
            if (move != each) {
                moves = moves.plus(move.motion().control(), move);
            }
        }
    }

    private Move stepped(Move from, long due) {
        Move move = from;
        while (move.nextNanos() <= due) {
            FadeCurve.Step next = move.next().orElseThrow();
            long at = move.began() + next.atNanos();
            Control control = move.motion().control();
            devices.moved(control, move.at(at));
            out.emitAt(at, control.deviceId(), next.message(), move.cause());
            move = move.stepped(gap(control));
        }
        return move;
    }

    /** Several that move on one device share its line. */
    private long gap(Control control) {
        long gap = FadeCurve.STEP_NANOS;
        for (Control other : moves.keySet()) {
            if (other.deviceId() == control.deviceId() && !other.equals(control)) {
                gap += FadeCurve.STEP_NANOS;
            }
        }
        return gap;
    }

    // ---- what begins

    /** A control sets off, from where it is to where it is called. @param due when, by the clock of the events */
    public void begin(PlannedMotion motion, long due, Cause cause) {
        Control control = motion.control();
        Move before = moves.get(control);
        Level known = levels.get(control);
        OptionalDouble stands = before != null
                ? OptionalDouble.of(before.at(due).exact())
                : known == null ? byBook(cause, control) : OptionalDouble.of(known.exact());
        FadeCurve curve = motion.from(stands.isPresent() ? stands : untold(control));
        if (step.isDryRun() && stands.isPresent()) {
            step.happens(new Happening.Moves(cause.cue(), control, stands.getAsDouble()));
        }
        // What nobody knows is said in any case; what the control said last is not said again.
        int said = before != null ? before.saidOn(curve) : known == null ? -1 : curve.placeOf(known.exact());
        moves = moves.plus(control, new Move(motion, curve, due, curve.next(0, said, gap(control)), said, cause));
        levels.put(control, motion.level(curve.restsAt()));
    }

    private OptionalDouble byBook(Cause cause, Control control) {
        return byBook(step.plan(), devices.of(control.deviceId()), cause.cue(), control);
    }

    /** Where the book has a control when a cue moves it, on a machine that was told nothing of it; a scene that moved it does not say where to. @param cue its label */
    public static OptionalDouble byBook(Plan plan, DeviceState device, String cue, Control control) {
        boolean sceneTold =
                device.slots().stream().anyMatch(s -> s.call().effect().takesAlong(Along.LEVELS));
        return sceneTold ? OptionalDouble.empty() : plan.startOf(cue, control);
    }

    /** Where the rig says that a move begins of which nobody knows where it begins. */
    private OptionalDouble untold(Control control) {
        return switch (step.plan()
                .device(control.deviceId())
                .map(d -> d.care().untoldFade())
                .orElse(UntoldFade.AT_ONCE)) {
            case AT_ONCE -> OptionalDouble.empty();
            case FROM_LOWEST -> OptionalDouble.of(0);
            case FROM_HIGHEST -> OptionalDouble.of(HIGHEST);
        };
    }

    /** A move is joined where it is at a moment; its control is brought there first. */
    public void goOn(Move move, long at, Cause cause) {
        Control control = move.motion().control();
        Level level = move.at(at);
        Level known = Move.told(moves.get(control), levels.get(control), at);
        if (known == null || !known.isAlso(level)) {
            out.emitAt(at, control.deviceId(), level.message(), cause);
        }
        moves = moves.plus(control, move.from(at - move.began(), level.exact(), gap(control), cause));
        levels.put(control, move.restsAt());
    }

    /** A move that stood still goes on, unless somebody has put the control elsewhere meanwhile. */
    public void goOnIfAsLeft(Move move) {
        Control control = move.motion().control();
        Level stood = move.toldAt(step.now()).orElse(null);
        Level stands = levels.get(control);
        boolean asLeft = stood == null ? stands == null : stands != null && stands.isAlso(stood);
        if (step.plan().device(control.deviceId()).isPresent() && !moves.containsKey(control) && asLeft) {
            goOn(move, step.now(), move.cause());
        }
    }

    // ---- what ends before its end

    /** All of them stop where they are. */
    public void halt() {
        for (Move move : moves.values()) {
            Control control = move.motion().control();
            move.toldAt(step.now()).ifPresentOrElse(level -> levels.put(control, level), () -> levels.remove(control));
        }
        moves = HashTreePMap.empty();
    }

    /** What a call sets is no longer under way; a scene sets all that its device has. */
    public void overtake(PlannedCall call) {
        if (moves.isEmpty()) {
            return;
        }
        moves = moves.minusAll(call.levels().keySet());
        if (call.effect().takesAlong(Along.LEVELS)) {
            drop(id -> id == call.deviceId());
        }
    }

    /** Those of some devices are no longer under way; nothing is sent. */
    public void drop(IntPredicate devices) {
        for (Control control : moves.keySet()) {
            moves = devices.test(control.deviceId()) ? moves.minus(control) : moves;
        }
    }

    /** Each that has an end is at its end. @param then gets what is called there */
    public void comeToRest(BiConsumer<PlannedCall, Cause> then) {
        for (Move move : moves.values()) {
            if (!move.isEndless()) {
                moves = moves.minus(move.motion().control());
                move.motion().then().ifPresent(call -> then.accept(call, move.cause()));
            }
        }
    }

    /** A message that no phrase says sets a control that the book knows. */
    public void set(int deviceId, Message message) {
        Control control = Control.of(deviceId, message);
        Level known = levels.get(control);
        if (known != null && message instanceof ControlChange change) {
            moves = moves.minus(control);
            levels.put(control, known.at(change.value()));
        }
    }

    // ---- where they are

    /** Where a control stands as far as it was told, under way or not; null when it was told nothing. */
    public Level told(Control control) {
        return Move.told(moves.get(control), levels.get(control), step.now());
    }

    /** Those that are under way now. */
    public Set<Control> controls() {
        return moves.keySet();
    }
}
