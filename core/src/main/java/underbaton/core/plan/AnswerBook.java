package underbaton.core.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import underbaton.core.midi.Message;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Answer;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;

/** What a machine says when it has done what it was told, looked up by what it says. Immutable once made; any thread may read it. */
public final class AnswerBook {

    public static final AnswerBook EMPTY = new AnswerBook(null);

    private final Device device;
    /** By their keys, those with nothing open. */
    private final Map<Object, List<Phrase>> plain = new HashMap<>();
    /** By the control of which the answer speaks, those with the amount open. */
    private final Map<Control, Phrase> open = new HashMap<>();
    /** By the control that it moves. */
    private final Map<Control, Phrase> levels = new HashMap<>();

    /**
     * What a machine has said of itself.
     *
     * @param call as if it had been told so; empty for a level
     * @param level where a control of it stands; empty for all else
     */
    public record Said(Phrase phrase, Optional<PlannedCall> call, Optional<Level> level) {}

    private AnswerBook(Device device) {
        this.device = device;
    }

    static AnswerBook of(Device device) {
        if (device.phrases().stream().allMatch(p -> p.answer().isEmpty())) {
            return EMPTY;
        }
        AnswerBook book = new AnswerBook(device);
        device.phrases().forEach(p -> p.answer().ifPresent(a -> book.add(p, a)));
        return book;
    }

    private void add(Phrase phrase, Answer answer) {
        Message message = answer.says().message().shiftedTo(device.channel());
        if (answer.says().open()) {
            open.putIfAbsent(Control.of(device.id(), message), phrase);
        } else {
            plain.computeIfAbsent(Answer.key(message), k -> new ArrayList<>()).add(phrase);
        }
        if (isOfLevel(phrase)) {
            levels.putIfAbsent(control(phrase), phrase);
        }
    }

    /** Whether its machine says where a control stands when it was called. */
    static boolean isOfLevel(Phrase phrase) {
        return phrase.effect().kind() == Effect.Kind.LEVELS
                && phrase.says().isOpen()
                && !phrase.says().hasTwoStates()
                && phrase.answer().filter(a -> a.says().open()).isPresent();
    }

    private Control control(Phrase phrase) {
        return Control.of(device.id(), PlannedCall.open(device, phrase).orElseThrow());
    }

    /** Whether the machine answers nothing. */
    public boolean isEmpty() {
        return device == null;
    }

    /** The phrase that moves a control whose machine says where it stands then; null for none. */
    public Phrase levelling(Control control) {
        return levels.get(control);
    }

    /** Where a control stands by a message that a phrase of it says; empty where it has no number. */
    public OptionalDouble exact(Phrase phrase, Message message) {
        return phrase.argument().orElseThrow().exactIn(message, device.levels());
    }

    /** What a message says of the machine: several where more than one phrase is answered so, none where it is no answer. */
    public List<Said> said(Message message) {
        if (isEmpty()) {
            return List.of();
        }
        List<Said> said = new ArrayList<>();
        for (Phrase phrase : plain.getOrDefault(Answer.key(message), List.of())) {
            said.add(new Said(phrase, Optional.of(PlannedCall.of(device, phrase)), Optional.empty()));
        }
        Phrase amount = open.get(Control.of(device.id(), message));
        if (said.isEmpty() && amount != null) {
            withAmount(amount, message).ifPresent(said::add);
        }
        return said;
    }

    private Optional<Said> withAmount(Phrase phrase, Message message) {
        Argument argument = phrase.argument().orElseThrow();
        OptionalDouble exact = argument.exactIn(message, device.levels());
        if (exact.isEmpty()) {
            return Optional.empty();
        }
        if (isOfLevel(phrase)) {
            Message speaks = PlannedCall.open(device, phrase).orElseThrow();
            Level level = new Level(exact.getAsDouble(), speaks, phrase.argument(), device.levels(), false);
            return Optional.of(new Said(phrase, Optional.empty(), Optional.of(level)));
        }
        Amount amount = new Amount.Measure(argument.amountAt(exact.getAsDouble(), device.levels()));
        return argument.takes(amount, device.levels())
                ? Optional.of(new Said(
                        phrase, Optional.of(PlannedCall.of(device, phrase, Optional.of(amount))), Optional.empty()))
                : Optional.empty();
    }

    /** A control's place in words: {@code Vox 1 → −12 dB}. */
    public String words(Phrase phrase, double exact) {
        Argument argument = phrase.argument().orElseThrow();
        double amount = argument.amountAt(exact, device.levels());
        double rounded = Math.abs(amount) > 1e6 ? amount : Math.round(amount * 10) / 10.0;
        return device.tell(phrase, Optional.of(new Amount.Measure(rounded)));
    }
}
