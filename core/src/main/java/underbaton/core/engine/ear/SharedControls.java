package underbaton.core.engine.ear;

import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import underbaton.core.cue.Motion;
import underbaton.core.cue.Span;
import underbaton.core.engine.call.Calls;
import underbaton.core.engine.device.Devices;
import underbaton.core.engine.move.Moves;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.HeldUp;
import underbaton.core.engine.out.Outgoing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.midi.Message;
import underbaton.core.plan.Level;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedMotion;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.signal.Passed;
import underbaton.core.signal.Scale;
import underbaton.core.signal.Source;
import underbaton.core.signal.Translation;

/**
 * Controls that both the book and a relay move, while a step is taken: how the relay's value meets what the control was told, and what it
 * holds up while the book wants less. Not thread-safe, used once.
 */
public final class SharedControls {

    private static final long SECOND = 1_000_000_000L;

    private final StepContext step;
    private final Devices devices;
    private final Outgoing out;
    private final Moves moves;
    private final Calls calls;
    private final Listeners listeners;

    /** Made anew for each step, of the parts that it asks. */
    public SharedControls(
            StepContext step, Devices devices, Outgoing out, Moves moves, Calls calls, Listeners listeners) {
        this.step = step;
        this.devices = devices;
        this.out = out;
        this.moves = moves;
        this.calls = calls;
        this.listeners = listeners;
    }

    /**
     * A relay moves a control.
     *
     * @param says what it takes for the relay to say something: why it may not, else nothing
     * @return what was sent, in a few words, or why nothing was
     */
    String move(Relays.Relaying at, Translation said, PlannedCall call, Supplier<Optional<String>> says) {
        Scale scale = at.relay().scale().orElseThrow();
        Control control = call.levels().keySet().iterator().next();
        Level wanted = call.levels().get(control);
        Level stands = moves.told(control);
        Passed passed = listeners.passed(at.relay());
        if (scale.meeting() == Scale.Meeting.PICK_UP
                && stands != null
                && !meets(passed, stands.exact(), wanted.exact())) {
            listeners.passes(at.relay(), passed.put(wanted.exact(), false));
            return said.words() + ": waits until it meets " + Amount.plain(Math.rint(stands.exact()));
        }
        if (isRepeated(passed, stands, wanted)) {
            return said.words() + ": said a moment ago";
        }
        listeners.passes(at.relay(), passed.put(wanted.exact(), true));
        Optional<String> flood = says.get();
        if (flood.isPresent()) {
            return flood.get();
        }
        if (scale.meeting() == Scale.Meeting.LARGEST) {
            HeldUp.Hold hold = new HeldUp.Hold(at.source().deviceId(), wanted);
            return said.words() + holdUp(at, control, stands, hold);
        }
        Optional<Message> open = PlannedCall.open(said.device(), said.phrase().orElseThrow());
        if (scale.smoothMs() > 0 && open.isPresent() && stands != null) {
            moves.begin(smooth(scale, said, control, open.get()), step.now(), at.cause());
        } else {
            calls.make(call, at.cause());
        }
        return said.words();
    }

    /** What a control was told a moment ago, and stands at, is not told again: a loop would live on it. */
    private boolean isRepeated(Passed passed, Level stands, Level wanted) {
        boolean lately = passed.rounds().saidSince(step.now() - SECOND);
        boolean same = passed.leads() && passed.exact().orElse(-1) == wanted.exact();
        return lately && same && stands != null && stands.isAlso(wanted);
    }

    /** A control that leads goes on; one that does not takes over where it passes the value, or is next to it. */
    private static boolean meets(Passed passed, double stands, double wanted) {
        if (passed.leads() && Math.abs(passed.exact().orElse(-1) - stands) < 1) {
            return true;
        }
        boolean passes = passed.exact().isPresent() && (passed.exact().getAsDouble() - stands) * (wanted - stands) <= 0;
        return passes || Math.abs(wanted - stands) <= 1;
    }

    /** What the book says stays known, so that letting go of the pedal falls back to it. */
    private String holdUp(Relays.Relaying at, Control control, Level stands, HeldUp.Hold hold) {
        Level wanted = hold.level();
        HeldUp before = out.heldUp();
        HeldUp now = before.with(control, at.relay().id(), hold);
        out.holdUp(now);
        Level book = stands == null ? wanted.at(0) : stands;
        if (stands != null && before.upTo(control, book) == now.upTo(control, book)) {
            return ": the book has it at more";
        }
        out.emit(control.deviceId(), wanted.at(now.upTo(control, book)).message(), at.cause());
        return "";
    }

    private static PlannedMotion smooth(Scale scale, Translation said, Control control, Message open) {
        Device device = said.device();
        Phrase phrase = said.phrase().orElseThrow();
        double target = said.amount().orElseThrow() instanceof Amount.Measure m ? m.value() : 0;
        return new PlannedMotion(
                control,
                new Motion.Move(Span.ofMillis(scale.smoothMs()), Motion.Shape.BY_VALUE, List.of(), 0),
                phrase.argument().orElseThrow(),
                device.levels(),
                open,
                target,
                scale.smoothMs() * 1_000_000L,
                0,
                Optional.empty());
    }

    /** A hold ends with the relay that has made it, and with the machine whose signal it was; then the book's value is sent. */
    public void letDownLost() {
        if (!out.heldUp().isEmpty()) {
            letDown(out.heldUp()
                    .without((relayId, hold) ->
                            !holds(relayId) || hold.sourceId() != Source.OTHERS && !devices.hears(hold.sourceId())));
        }
    }

    private boolean holds(int relayId) {
        return step.plan().listeners().stream()
                .anyMatch(l -> l.id() == relayId
                        && listeners.state().isArmed(l)
                        && l.scale()
                                .filter(s -> s.meeting() == Scale.Meeting.LARGEST)
                                .isPresent());
    }

    /** No relay holds anything up any more. */
    public void letDownAll() {
        letDown(HeldUp.NOTHING);
    }

    private void letDown(HeldUp left) {
        out.letDown(left, moves::told, Cause.outside("relay lets go", step.now()));
    }
}
