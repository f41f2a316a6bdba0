package underbaton.core.plan;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import underbaton.core.cue.Call;
import underbaton.core.cue.PatchBay;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.rig.Along;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Speech.Timed;
import underbaton.core.rig.Standing;
import underbaton.core.rig.Utterance;

/**
 * A call with everything that is needed to make it.
 *
 * @param phrase what its cell says
 * @param messages on the device's own channels, with the time of each since the call, in that order; none where the
 *     control moves
 * @param motion how a control moves, where it does
 * @param levels where each control stands after the messages
 * @param afterNanos when it is made, since its cue's moment; below 0 for before
 * @param leadNanos how early its device must be told
 * @param answer what its machine says when it has done it, where it says so
 * @param fromNanos how far into what it starts it begins, where its amount says so; else 0
 */
public record PlannedCall(
        int deviceId,
        int phraseId,
        String phrase,
        Effect effect,
        List<Timed> messages,
        Optional<PlannedMotion> motion,
        Map<Control, Level> levels,
        long afterNanos,
        long leadNanos,
        long fromNanos,
        Optional<PlannedAnswer> answer) {

    private static final int SET = -1;
    private static final int PROGRAM = 0;
    private static final int CONTROL = 1;
    private static final int NOTE = 2;

    /** A call that its machine does not answer. */
    public PlannedCall(
            int deviceId,
            int phraseId,
            String phrase,
            Effect effect,
            List<Timed> messages,
            Optional<PlannedMotion> motion,
            Map<Control, Level> levels,
            long afterNanos,
            long leadNanos,
            long fromNanos) {
        this(
                deviceId,
                phraseId,
                phrase,
                effect,
                messages,
                motion,
                levels,
                afterNanos,
                leadNanos,
                fromNanos,
                Optional.empty());
    }

    /** As if it were called now and at once, with the messages that its machine gets. */
    public static PlannedCall of(Device device, Phrase phrase, Optional<Amount> amount) {
        List<Timed> messages = device.messagesFor(phrase, amount);
        return new PlannedCall(
                device.id(),
                phrase.id(),
                device.tell(phrase, amount),
                phrase.effect(),
                messages,
                Optional.empty(),
                levels(device, phrase, amount, messages),
                0,
                device.leadMs() * 1_000_000L,
                fromNanos(phrase, amount),
                PlannedAnswer.of(device, phrase, amount));
    }

    /** A phrase with no blank, or with the smallest amount in it. */
    public static PlannedCall of(Device device, Phrase phrase) {
        return of(device, phrase, Optional.empty());
    }

    private static long fromNanos(Phrase phrase, Optional<Amount> amount) {
        boolean bySeconds = phrase.effect().kind() == Effect.Kind.STARTS
                && phrase.argument()
                        .filter(a -> a.unit() == Argument.Unit.SECONDS)
                        .isPresent();
        return bySeconds && amount.orElse(null) instanceof Amount.Measure seconds ? (long) (seconds.value() * 1e9) : 0;
    }

    private static Map<Control, Level> levels(
            Device device, Phrase phrase, Optional<Amount> amount, List<Timed> messages) {
        Map<Control, Level> levels = new HashMap<>();
        if (phrase.effect().takesAlong(Along.LEVELS)) {
            for (Standing standing : phrase.leaves()) {
                Message at = standing.open().shiftedTo(device.channel());
                Control control = Control.of(device.id(), at);
                Optional<Argument> argument = device.levelling(control).flatMap(Phrase::argument);
                levels.put(control, new Level(standing.exact(), at, argument, device.levels(), true));
            }
        }
        Effect.Kind kind = phrase.effect().kind();
        boolean partOfSlot = kind != Effect.Kind.LEVELS && kind != Effect.Kind.MOMENT;
        for (Timed timed : messages) {
            if (timed.message() instanceof ControlChange change) {
                Level level = new Level(change.value(), change, Optional.empty(), device.levels(), partOfSlot);
                levels.put(Control.of(device.id(), change), level);
            }
        }
        Optional<Message> open = open(device, phrase);
        if (open.isPresent() && amount.orElse(null) instanceof Amount.Measure measure) {
            Argument argument = phrase.argument().orElseThrow();
            double exact = argument.exact(measure.value(), device.levels());
            levels.put(
                    Control.of(device.id(), open.get()),
                    new Level(exact, open.get(), Optional.of(argument), device.levels(), partOfSlot));
        }
        return Map.copyOf(levels);
    }

    /** The message of a phrase that its argument fills, on the device's channel. */
    public static Optional<Message> open(Device device, Phrase phrase) {
        return phrase.says().on().stream().filter(Utterance::open).findFirst().map(u -> u.message()
                .shiftedTo(device.channel()));
    }

    /** The call with its control moved by the motion instead of set at once. */
    PlannedCall moving(Call call, Device device, PlannedMotion planned) {
        return new PlannedCall(
                deviceId,
                phraseId,
                call.tell(device),
                effect,
                List.of(),
                Optional.of(planned),
                Map.of(),
                afterNanos,
                leadNanos,
                fromNanos,
                answer);
    }

    PlannedCall after(long nanos, String said) {
        return new PlannedCall(
                deviceId, phraseId, said, effect, messages, motion, levels, nanos, leadNanos, fromNanos, answer);
    }

    /** Since the cue's moment, when it must leave to be in time. */
    long leavesNanos() {
        return afterNanos - leadNanos;
    }

    /**
     * Its place among what is told in one instant: patch sets come first, so that what is called after them reaches the new outputs; then
     * what its device gets as it was typed, or else programs, then controls, then notes.
     *
     * @param device the one that is called
     */
    public int rank(Device device) {
        return PatchBay.is(device) ? SET : device.care().asTyped() ? PROGRAM : kind();
    }

    /** Programs (0), then controls, then notes. */
    public int kind() {
        if (messages.isEmpty()) {
            return CONTROL;
        }
        Message first = messages.get(0).message();
        if (first instanceof ProgramChange || first instanceof BankProgram) {
            return PROGRAM;
        }
        return first instanceof NoteOn || first instanceof NoteOff ? NOTE : CONTROL;
    }

    /** Whether a program change is what it says; such go before notes and controllers of one moment. */
    public boolean isProgram() {
        return kind() == PROGRAM;
    }
}
