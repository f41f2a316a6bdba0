package underbaton.web.signals;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import underbaton.core.cue.Show;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.SpeechWording;
import underbaton.core.signal.Filling;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Scale;
import underbaton.web.kernel.Typed;

/**
 * The blanks of what a relay passes on, as they are typed: numbers in the printing of the machine that says or is told them.
 *
 * @param how {@code says}, {@code written} or {@code through}
 * @param says a phrase with its machine, {@code 3 7}
 * @param tells the id of the machine that is told, where no phrase says it
 * @param words what it is told then
 * @param toChannel 1–16, or empty for the one on which it came
 * @param shift added to a number
 * @param fills {@code nothing}, {@code scaled} or {@code named}
 * @param place of the OSC argument, from 1
 * @param fine anything where two controllers are one number of 14 bits
 * @param comesFrom the number at one end; empty for the whole range
 * @param goesFrom the amount there
 * @param bent the exponent of the way
 * @param grid amounts are multiples of it; empty for any
 * @param smooth ms
 * @param second the id of the machine whose controller has a say too; 0 for none
 * @param gates {@code gates} or {@code multiplies}
 * @param meeting a {@link Scale.Meeting}
 * @param listOf the machine whose list has the names; 0 for those below
 * @param names one on each line
 * @param first the number of the first name
 * @param each anything where a relay is made for each number of the range, {@code #} standing for it
 */
public record RelayForm(
        String how,
        String says,
        String tells,
        String words,
        String toChannel,
        String shift,
        String fills,
        String place,
        String fine,
        String comesFrom,
        String comesTo,
        String goesFrom,
        String goesTo,
        String bent,
        String grid,
        String smooth,
        Integer second,
        String secondChannel,
        String secondNumber,
        String gates,
        String meeting,
        Integer listOf,
        String names,
        String first,
        String each) {

    /** Blanks of another kind are not sent. */
    public RelayForm {
        how = Typed.orEmpty(how);
        says = Typed.orEmpty(says);
        tells = Typed.orEmpty(tells);
        words = Typed.orEmpty(words);
        toChannel = Typed.orEmpty(toChannel);
        shift = Typed.orEmpty(shift);
        fills = Typed.orEmpty(fills);
        place = Typed.orEmpty(place);
        comesFrom = Typed.orEmpty(comesFrom);
        comesTo = Typed.orEmpty(comesTo);
        goesFrom = Typed.orEmpty(goesFrom);
        goesTo = Typed.orEmpty(goesTo);
        bent = Typed.orEmpty(bent);
        grid = Typed.orEmpty(grid);
        smooth = Typed.orEmpty(smooth);
        secondChannel = Typed.orEmpty(secondChannel);
        secondNumber = Typed.orEmpty(secondNumber);
        gates = Typed.orEmpty(gates);
        meeting = Typed.orEmpty(meeting);
        names = Typed.orEmpty(names);
        first = Typed.orEmpty(first);
        second = second == null ? Integer.valueOf(0) : second;
        listOf = listOf == null ? Integer.valueOf(0) : listOf;
    }

    private static final String EMPTY = "";
    private static final String NUMBER = "[-−+]?\\d{1,7}([.,]\\d{1,4})?|[-−]∞";

    private static final RelayForm NEW = blank(null);
    private static final RelayForm NEW_FINE = blank("on");

    private static RelayForm blank(String fine) {
        return new RelayForm(
                "says",
                "",
                "",
                "",
                "",
                "",
                "scaled",
                "1",
                fine,
                "",
                "",
                "",
                "",
                "1",
                "",
                "",
                0,
                "1",
                "",
                "multiplies",
                Scale.Meeting.LATEST.name(),
                0,
                "",
                "1",
                null);
    }

    /** Of a new one. @param fine whether what was touched has two halves */
    static RelayForm fresh(boolean fine) {
        return fine ? NEW_FINE : NEW;
    }

    static RelayForm of(Show show, Listener listener) {
        return listener.passage().map(p -> of(show, listener, p)).orElse(NEW);
    }

    private static RelayForm of(Show show, Listener relay, Passage passage) {
        Optional<Device> told = show.device(passage.deviceId());
        String how =
                passage instanceof Passage.Says ? "says" : passage instanceof Passage.Written ? "written" : "through";
        String phrase = passage instanceof Passage.Says s ? s.deviceId() + " " + s.phraseId() : EMPTY;
        String words = passage instanceof Passage.Written w
                ? told.map(Device::wording)
                        .orElseGet(() -> new SpeechWording(Numbering.WIRE))
                        .write(w.speech())
                : EMPTY;
        String channel = passage instanceof Passage.Through t && t.channel().isPresent()
                ? Integer.toString(Numbering.channel(t.channel().getAsInt()))
                : EMPTY;
        String shift = passage instanceof Passage.Through t && t.shift() != 0 ? Integer.toString(t.shift()) : EMPTY;
        Filling filling = passage.fills();
        Filling.Named named = filling instanceof Filling.Named n ? n : null;
        Scale s = relay.scale().orElse(null);
        Optional<Scale.Second> second = relay.scale().flatMap(Scale::second);
        RelayBlanks blanks = new RelayBlanks(show, relay, passage);
        return new RelayForm(
                how,
                phrase,
                Integer.toString(passage.deviceId()),
                words,
                channel,
                shift,
                s != null ? "scaled" : named != null ? "named" : "nothing",
                s == null ? "1" : Integer.toString(s.place() + 1),
                s != null && s.fine() ? "on" : null,
                s == null ? EMPTY : blanks.number(s.from(), s.fine()),
                s == null ? EMPTY : blanks.number(s.to(), s.fine()),
                s == null ? EMPTY : blanks.amount(s.low()),
                s == null ? EMPTY : blanks.amount(s.high()),
                s == null ? "1" : Amount.plain(s.bend()),
                s == null || s.grid() == 0 ? EMPTY : Amount.plain(s.grid()),
                s == null || s.smoothMs() == 0 ? EMPTY : Integer.toString(s.smoothMs()),
                second.map(Scale.Second::deviceId).orElse(0),
                second.map(x -> Integer.toString(Numbering.channel(x.channel())))
                        .orElse("1"),
                second.map(x -> Integer.toString(x.controller())).orElse(EMPTY),
                second.filter(Scale.Second::gates).map(x -> "gates").orElse("multiplies"),
                (s == null ? Scale.Meeting.LATEST : s.meeting()).name(),
                named == null ? 0 : named.listOf(),
                named == null ? EMPTY : String.join("\n", named.names()),
                named == null ? "1" : Integer.toString(named.first()),
                null);
    }

    /**
     * The listener of these blanks, or one for each number of its range.
     *
     * @param listener with everything but what it does
     */
    List<Listener> relays(Show show, Listener listener) {
        if (each == null) {
            return List.of(doing(listener, new Reaction.PassOn(passage(show, listener, words))));
        }
        List<Listener> all = new ArrayList<>();
        for (One one : ones(listener.pattern(), numbering(show, listener))) {
            Passage passage = passage(show, listener, words.replace("#", one.number));
            Listener narrow = new Listener(
                    0,
                    listener.name() + " " + one.number,
                    listener.from(),
                    listener.channel(),
                    one.pattern,
                    new Reaction.PassOn(passage),
                    listener.pauseMs(),
                    listener.itemId(),
                    listener.atOnce(),
                    listener.listens());
            all.add(narrow);
        }
        return all;
    }

    private static Listener doing(Listener listener, Reaction reaction) {
        return listener.pointing(listener.from(), reaction, listener.itemId());
    }

    /** One number of a range. @param number as the machine that says it prints it */
    private record One(Pattern pattern, String number) {}

    private static List<One> ones(Pattern pattern, Numbering numbering) {
        if (pattern instanceof Pattern.Program p) {
            return ones(p.from(), p.to(), n -> new One(new Pattern.Program(p.bank(), n, n), numbering.program(n)));
        } else if (pattern instanceof Pattern.Note p) {
            return ones(p.from(), p.to(), n -> {
                Pattern note = new Pattern.Note(n, n, p.softest(), p.hardest(), p.struck());
                return new One(note, numbering.note(n));
            });
        } else if (pattern instanceof Pattern.Song p) {
            return ones(p.from(), p.to(), n -> new One(new Pattern.Song(n, n), Integer.toString(n)));
        }
        throw new Refusal("each", "A relay for each number is made of a range of notes, programs or songs.");
    }

    private static List<One> ones(int from, int to, IntFunction<One> one) {
        return IntStream.rangeClosed(from, to).mapToObj(one).toList();
    }

    private static Numbering numbering(Show show, Listener listener) {
        return SignalsController.numbering(show, listener);
    }

    private Passage passage(Show show, Listener listener, String said) {
        if ("says".equals(how)) {
            String[] parts = says.split(" ");
            if (parts.length != 2) {
                throw new Refusal("says", "Choose the phrase that it passes on to.");
            }
            int deviceId = Typed.number("says", parts[0]);
            int phraseId = Typed.number("says", parts[1]);
            Passage bare = new Passage.Says(deviceId, phraseId, new Filling.Nothing());
            RelayBlanks blanks = new RelayBlanks(show, listener, bare);
            return blanks.argument().isEmpty() ? bare : new Passage.Says(deviceId, phraseId, filling(blanks));
        }
        int deviceId = Typed.number("machine", tells);
        Device told =
                show.device(deviceId).orElseThrow(() -> new Refusal("tells", "That machine is gone; reload the page."));
        if ("through".equals(how)) {
            OptionalInt channel = toChannel.isBlank()
                    ? OptionalInt.empty()
                    : OptionalInt.of(Numbering.wireChannel(Typed.number("toChannel", toChannel)));
            return new Passage.Through(deviceId, channel, shift.isBlank() ? 0 : Typed.number("shift", shift));
        }
        underbaton.core.rig.Speech speech = told.wording().read(said);
        boolean midi = told.connection().carriesMidi();
        for (Message message : speech.messages()) {
            if (message instanceof OscMessage == midi) {
                throw new Refusal(
                        "words",
                        midi
                                ? told.name() + " is reached by MIDI; write a note, a control or a program."
                                : told.name() + " is reached by OSC; write: osc /address and what goes with it.");
            }
        }
        if (!speech.isOpen()) {
            return new Passage.Written(deviceId, speech, new Filling.Nothing());
        }
        Passage first = new Passage.Written(deviceId, speech, new Filling.Scaled(Scale.straight(0, 1, 0, 1)));
        return new Passage.Written(deviceId, speech, filling(new RelayBlanks(show, listener, first)));
    }

    private Filling filling(RelayBlanks blanks) {
        if ("named".equals(fills)) {
            List<String> all = listOf > 0 || names.isBlank()
                    ? List.of()
                    : Arrays.asList(names.strip().split("\\R"));
            return new Filling.Named(listOf, all, first.isBlank() ? 1 : Typed.number("first", first));
        }
        if (!"scaled".equals(fills)) {
            return new Filling.Nothing();
        }
        boolean isFine = fine != null;
        Optional<Scale.Second> other = second == 0
                ? Optional.empty()
                : Optional.of(new Scale.Second(
                        second,
                        Numbering.wireChannel(Typed.number("secondChannel", secondChannel)),
                        Typed.number("secondNumber", secondNumber),
                        "gates".equals(gates)));
        return new Filling.Scaled(new Scale(
                place.isBlank() ? 0 : Typed.number("place", place) - 1,
                isFine,
                comesFrom.isBlank() ? blanks.lowestNumber() : blanks.number("comesFrom", comesFrom, isFine),
                comesTo.isBlank() ? blanks.highestNumber(isFine) : blanks.number("comesTo", comesTo, isFine),
                goesFrom.isBlank() ? blanks.lowestAmount() : blanks.amount("goesFrom", goesFrom),
                goesTo.isBlank() ? blanks.highestAmount() : blanks.amount("goesTo", goesTo),
                bent.isBlank() ? 1 : decimal("bent", bent),
                grid.isBlank() ? 0 : decimal("grid", grid),
                smooth.isBlank() ? 0 : Typed.number("smooth", smooth),
                other,
                Scale.Meeting.valueOf(meeting)));
    }

    static double decimal(String field, String typed) {
        String text = typed.strip();
        if (!text.matches(NUMBER)) {
            throw new Refusal(field, "“" + text + "” is no number; write for example 0.5.");
        }
        return text.endsWith("∞")
                ? Double.NEGATIVE_INFINITY
                : Double.parseDouble(text.replace('−', '-').replace(',', '.'));
    }
}
