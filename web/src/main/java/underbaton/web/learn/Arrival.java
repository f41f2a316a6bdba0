package underbaton.web.learn;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import underbaton.core.cue.Show;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.MidiParser;
import underbaton.core.traffic.Entry;
import underbaton.wire.osc.OscCodec;

/**
 * Something that came in.
 *
 * @param bound the phrases that say just this, in words; empty for none
 */
public record Arrival(Entry entry, Message message, String bytes, String bound) {

    /** Empty when the bytes of the entry are no message. */
    static Optional<Arrival> of(Show show, Entry entry) {
        return message(entry.bytes())
                .map(message -> new Arrival(entry, message, entry.bytes().hex(), bound(show, message)));
    }

    private static Optional<Message> message(Bytes bytes) {
        if (bytes.length() > 0 && bytes.at(0) == '/') {
            return new OscCodec()
                    .decode(bytes.toArray()).stream()
                            .map(r -> (Message) r.message())
                            .findFirst();
        }
        List<Message> found = new ArrayList<>();
        MidiParser parser = new MidiParser(Math.max(1, bytes.length()), new MidiParser.Sink() {
            @Override
            public void message(MidiMessage message) {
                found.add(message);
            }

            @Override
            public void trouble(MidiParser.Trouble trouble) {
                // What was logged as no message is not learned.
            }
        });
        parser.accept(bytes.toArray(), 0, bytes.length());
        return found.stream().findFirst();
    }

    private static String bound(Show show, Message message) {
        return show.devices().stream()
                .flatMap(d -> d.phrases().stream()
                        .filter(p -> d.messagesFor(p, Optional.empty()).stream()
                                .anyMatch(t -> t.message().equals(message)))
                        .map(p -> d.name() + ": " + p.name()))
                .collect(Collectors.joining(", "));
    }
}
