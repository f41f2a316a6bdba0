package underbaton.web.rig;

import java.util.List;
import java.util.stream.Collectors;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wording;
import underbaton.wire.osc.OscCodec;

/**
 * A phrase as its device hears it.
 *
 * @param words in the device's own numbers, channels counted from its own
 * @param display what the device's own display will read
 * @param bytes as they go out
 */
public record Said(Phrase phrase, String words, String display, String bytes) {

    public static Said of(Device device, Phrase phrase) {
        List<Message> sent = device.messagesFor(phrase);
        Wording wording = new Wording(device.numbering());
        return new Said(
                phrase,
                wording.write(phrase.says()),
                sent.stream().map(wording::tell).collect(Collectors.joining("; ")),
                sent.stream().map(Said::bytes).collect(Collectors.joining("  ")));
    }

    private static String bytes(Message message) {
        return message instanceof MidiMessage midi
                ? midi.encode().hex()
                : new OscCodec().encode((OscMessage) message).hex();
    }

    /** The place of a listed phrase as it is printed; empty for one outside the list. */
    public String place(Device device) {
        int place = device.listed().indexOf(phrase);
        return place < 0 ? "" : Integer.toString(Numbering.place(place));
    }

    /** The device's channel as it is printed, 1–16. */
    public static int channel(Device device) {
        return Numbering.channel(device.channel());
    }
}
