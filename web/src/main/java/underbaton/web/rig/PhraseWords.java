package underbaton.web.rig;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Speech.Timed;
import underbaton.core.rig.Utterance;
import underbaton.core.rig.Wording;
import underbaton.wire.osc.OscCodec;

/**
 * A phrase as its device hears it.
 *
 * @param name with the amount of the call
 * @param words in the device's own numbers, channels counted from its own
 * @param display what the device's own display will read
 * @param bytes as they go out
 */
public record PhraseWords(Phrase phrase, String name, String words, String display, String bytes) {

    /** The phrase as its line in the phrasebook has it, a blank with the smallest amount. */
    public static PhraseWords of(Device device, Phrase phrase) {
        if (!phrase.says().hasTwoStates()) {
            return of(device, phrase, Optional.empty());
        }
        PhraseWords on = of(device, phrase, Optional.of(new Amount.Measure(1)));
        PhraseWords off = of(device, phrase, Optional.of(new Amount.Measure(0)));
        return new PhraseWords(
                phrase,
                phrase.name(),
                on.words(),
                on.display() + " | " + off.display(),
                on.bytes() + " | " + off.bytes());
    }

    public static PhraseWords of(Device device, Phrase phrase, Optional<Amount> amount) {
        List<Timed> sent = device.messagesFor(phrase, amount);
        Wording wording = new Wording(device.numbering());
        return new PhraseWords(
                phrase,
                device.tell(phrase, amount),
                device.wording().write(phrase.says()),
                sent.stream().map(t -> at(t) + wording.tell(t.message())).collect(Collectors.joining("; ")),
                bytes(phrase, amount, sent));
    }

    /** Where nobody has said the amount yet, dots stand for the byte that it will be. */
    private static String bytes(Phrase phrase, Optional<Amount> amount, List<Timed> sent) {
        List<Utterance> on = phrase.says().on();
        boolean open = amount.isEmpty() && on.size() == sent.size();
        return IntStream.range(0, sent.size())
                .mapToObj(i -> {
                    String bytes = bytes(sent.get(i).message());
                    boolean dotted = open && on.get(i).open() && on.get(i).message() instanceof MidiMessage;
                    return at(sent.get(i)) + (dotted ? bytes.substring(0, bytes.length() - 2) + "··" : bytes);
                })
                .collect(Collectors.joining("  "));
    }

    private static String at(Timed timed) {
        return timed.atMs() == 0 ? "" : "+" + timed.atMs() + " ms ";
    }

    private static String bytes(Message message) {
        return message instanceof MidiMessage midi
                ? midi.encode().hex()
                : new OscCodec().encode((OscMessage) message).hex();
    }

    /** The place of a listed phrase as it is printed; empty for one outside the list. */
    public String place(Device device) {
        int place = device.placeOf(phrase);
        return place < 0 ? "" : Integer.toString(device.numbering().place(place));
    }

    /** The device's channel as it is printed, 1–16. */
    public static int channel(Device device) {
        return Numbering.channel(device.channel());
    }
}
