package underbaton.core.engine.call;

import java.util.Comparator;
import java.util.List;
import java.util.OptionalLong;
import java.util.function.IntPredicate;
import underbaton.core.engine.answer.Answers;
import underbaton.core.engine.device.Devices;
import underbaton.core.engine.device.Slot;
import underbaton.core.engine.move.Moves;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.Outgoing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.engine.patch.Patching;
import underbaton.core.engine.patch.Sounds;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.Message;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Speech.Timed;

/**
 * Calls are made: they become messages, controls move, and what each device has been told is kept. What leaves later is on the
 * agenda. Not thread-safe, used once.
 */
public final class Calls {

    private final StepContext step;
    private final Devices devices;
    private final Outgoing out;
    private final Moves moves;
    private final Sounds sounds;
    private final Patching patching;
    private final Agenda agenda;
    private final Answers answers;

    /** Made anew for each step, of the parts that it asks. */
    public Calls(
            StepContext step,
            Devices devices,
            Outgoing out,
            Moves moves,
            Sounds sounds,
            Patching patching,
            Agenda agenda,
            Answers answers) {
        this.step = step;
        this.devices = devices;
        this.out = out;
        this.moves = moves;
        this.sounds = sounds;
        this.patching = patching;
        this.agenda = agenda;
        this.answers = answers;
    }

    /** Calls that are made together: in the order in which they should have left, and of one instant each device gets its programs first. */
    public void makeAll(List<DueCall> calls) {
        List<DueCall> inOrder = calls.size() < 2
                ? calls
                : calls.stream()
                        .sorted(Comparator.comparingLong(DueCall::wanted)
                                .thenComparingInt(d -> step.plan().rank(d.call())))
                        .toList();
        for (DueCall each : inOrder) {
            if (each.due() > step.now()) {
                agenda.add(each.due(), new Pending.ToCall(each.call(), each.cause()));
            } else {
                make(each, each.wanted() < each.due());
            }
        }
    }

    /** At the moment of the step. */
    public void make(PlannedCall call, Cause cause) {
        make(DueCall.at(step.now(), call, cause), false);
    }

    /** @param beforeStart whether it should have left before its item began */
    public void make(DueCall made, boolean beforeStart) {
        make(made, beforeStart, false);
    }

    private void make(DueCall made, boolean beforeStart, boolean queued) {
        PlannedCall call = made.call();
        Cause cause = made.cause();
        long due = made.due();
        if (!agenda.isEmpty() && !cause.mends() && !step.isDryRun()) {
            overtakeMends(call);
            OptionalLong steps = lastStep(call, queued);
            if (steps.isPresent()) {
                // A machine that steps is stepped on from where it is being brought, in the order of the calls.
                Device device = step.plan().device(call.deviceId()).orElseThrow();
                agenda.add(steps.getAsLong() + pause(device, call), new Pending.ToCall(call, cause, true));
                return;
            }
        }
        moves.overtake(call);
        devices.called(call, due, step.plan().stepLists(call.deviceId()));
        answers.called(call, due);
        if (call.effect().kind() == Effect.Kind.STARTS && cause.cueId() != 0) {
            devices.tell(
                    call.deviceId(),
                    devices.of(call.deviceId()).setGoingBy(itemOf(cause.cueId()), Slot.key(call.effect())));
        }
        for (Timed timed : call.messages()) {
            if (timed.atMs() == 0) {
                out.emit(call.deviceId(), timed.message(), due, made.wanted(), cause, beforeStart);
            } else {
                sendAt(due + timed.atMs() * 1_000_000L, call.deviceId(), timed.message(), cause);
            }
        }
        call.motion().ifPresent(motion -> moves.begin(motion, due, cause));
        patching.load(call, cause);
    }

    /** A message leaves later, whatever the moment. */
    public void sendAt(long due, int deviceId, Message message, Cause cause) {
        agenda.add(due, new Pending.ToSend(deviceId, message, cause));
    }

    private int itemOf(int cueId) {
        int index = step.plan().indexOf(cueId);
        return index < 0 ? 0 : step.plan().cues().get(index).item().id();
    }

    // ---- what leaves later

    /** What is due first leaves. */
    public void makeFirstPending() {
        Agenda.Due first = agenda.takeFirst();
        long due = first.dueNanos();
        if (first.what() instanceof Pending.ToCall call) {
            make(DueCall.at(due, call.call(), call.cause()), false, call.queued());
        } else if (first.what() instanceof Pending.ToSend send) {
            out.emitAt(due, send.deviceId(), send.message(), send.cause());
            devices.said(send.deviceId(), send.message(), due);
            sounds.owe(send.deviceId(), send.message());
        } else if (first.what() instanceof Pending.ToMove move) {
            moves.goOn(move.move(), due, move.cause());
        }
    }

    /** What cues still have to call is taken back; what has been called is told to its end. */
    public List<Agenda.Due> suspend() {
        return agenda.takeBack(p -> p instanceof Pending.ToCall && p.cause().owner() == Cause.Owner.CUE);
    }

    /** Nothing more is called; what has been called is told to its end. */
    public void dropCalls() {
        agenda.takeBack(Pending.ToCall.class::isInstance);
    }

    /** What cues have called late, and what follows from it, does not come: they are left. What is brought to machines to make them right does. */
    public void dropCallsOfCues() {
        agenda.takeBack(p -> p instanceof Pending.ToCall call
                && call.cause().cueId() != 0
                && !call.cause().mends());
    }

    /** What phrases have struck for a while on some machines ends now. */
    public void endStruck(IntPredicate machines) {
        List<Agenda.Due> ends = agenda.takeBack(p -> p instanceof Pending.ToSend send
                && ChannelMessage.endsNote(send.message())
                && machines.test(send.deviceId()));
        ends.forEach(e -> endNow((Pending.ToSend) e.what()));
    }

    private void endNow(Pending.ToSend end) {
        out.emit(end.deviceId(), end.message(), end.cause());
        sounds.owe(end.deviceId(), end.message());
    }

    /** What was still to leave is dropped, but nothing goes on sounding. */
    public void dropAll() {
        for (Pending pending : agenda.takeAll()) {
            if (pending instanceof Pending.ToSend send && ChannelMessage.endsNote(send.message())) {
                endNow(send);
            } else if (pending instanceof Pending.ToSend cut) {
                devices.forget(cut.deviceId(), cut.message());
            }
        }
    }

    /** What has been called is made at once, and every move is where it ends. */
    public void comeToRest() {
        while (!agenda.isEmpty()) {
            makeFirstPending();
        }
        moves.comeToRest(this::make);
    }

    // ---- what an earlier catch-up has still to do

    /** What it was still to call on some machines is not called; so what was told so far is all that was told. */
    public void takeBackMends(IntPredicate machines) {
        agenda.takeBack(p -> !(p instanceof Pending.ToSend) && p.cause().mends() && machines.test(p.deviceId()));
    }

    /** What it was still to set there is not set over a call. */
    private void overtakeMends(PlannedCall call) {
        agenda.takeBack(p -> p.cause().mends() && isOvertaken(p, call));
    }

    private static boolean isOvertaken(Pending pending, PlannedCall call) {
        return pending instanceof Pending.ToCall waits && Overlap.setsTheSame(waits.call(), call)
                || pending instanceof Pending.ToMove move
                        && Overlap.sets(call, move.move().motion().control());
    }

    /**
     * When the last step leaves by which it still brings a list to its place, and what was called meanwhile; empty when none does.
     *
     * @param queued whether the call has waited for that already, and only what has come anew is before it
     */
    private OptionalLong lastStep(PlannedCall call, boolean queued) {
        Effect.Kind kind = call.effect().kind();
        if (kind != Effect.Kind.STEPS && kind != Effect.Kind.SETS) {
            return OptionalLong.empty();
        }
        return agenda.state().entrySet().stream()
                .filter(e -> e.getValue() instanceof Pending.ToCall waits
                        && (waits.cause().mends() || waits.queued() && !queued)
                        && waits.deviceId() == call.deviceId()
                        && waits.call().effect().kind() != Effect.Kind.LEVELS
                        && !waits.call().effect().takesASlot()
                        && Overlap.isOfSameName(waits.call(), call))
                .mapToLong(e -> e.getKey().dueNanos())
                .max();
    }

    /** How long a device is left alone after a call that is not part of a cue, ns. */
    static long pause(Device device, PlannedCall call) {
        return (device.gapMs(call.effect()) + (call.isProgram() ? device.settleMs() : 0)) * 1_000_000L;
    }
}
