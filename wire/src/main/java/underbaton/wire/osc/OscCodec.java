package underbaton.wire.osc;

import com.illposed.osc.BufferBytesReceiver;
import com.illposed.osc.OSCMessage;
import com.illposed.osc.OSCParseException;
import com.illposed.osc.OSCParser;
import com.illposed.osc.OSCSerializeException;
import com.illposed.osc.OSCSerializerAndParserBuilder;
import com.illposed.osc.argument.OSCColor;
import com.illposed.osc.argument.OSCImpulse;
import com.illposed.osc.argument.OSCMidiMessage;
import com.illposed.osc.argument.OSCSymbol;
import com.illposed.osc.argument.OSCTimeTag64;
import com.illposed.osc.argument.OSCUnsigned;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.OscMessage.Bare;
import underbaton.core.midi.OscMessage.Colour;
import underbaton.core.midi.OscMessage.MidiOctets;
import underbaton.core.midi.OscMessage.Symbol;
import underbaton.core.midi.OscMessage.TimeTag;

/**
 * Open Sound Control packets, with the types of 1.0 and the common ones beyond, written and read by the OSC library. What
 * the library gets has been limited before ({@link OscElements}); each message is read by itself, so one that cannot be
 * read leaves the others of its bundle as they are. Not thread-safe.
 */
public final class OscCodec {

    private static final int LARGEST_PACKET = 65_507;
    private static final int MOST_TYPES = 4096;
    private static final int DEEPEST_ARRAY = 8;

    private final ByteBuffer room = ByteBuffer.allocate(LARGEST_PACKET);
    private final OSCParser parser = new OSCSerializerAndParserBuilder().buildParser();

    /**
     * A message of a packet.
     *
     * @param bytes as they came
     * @param timeTag when it is meant, as NTP counts; 1 for at once
     */
    public record Read(OscMessage message, Bytes bytes, long timeTag) {}

    /** @throws IllegalArgumentException when the message does not fit into a datagram */
    public Bytes encode(OscMessage message) {
        room.clear();
        try {
            List<Object> arguments = new ArrayList<>();
            message.arguments().forEach(a -> arguments.add(toLibrary(a)));
            new OSCSerializerAndParserBuilder()
                    .buildSerializer(new BufferBytesReceiver(room))
                    .write(new OSCMessage(message.address(), arguments));
        } catch (OSCSerializeException | RuntimeException tooLong) {
            throw new IllegalArgumentException("this OSC message cannot be written: " + tooLong.getMessage(), tooLong);
        }
        return Bytes.copyOf(room.array(), 0, room.position());
    }

    /** The messages of a packet, those of bundles in their order. Anything that is no OSC is left out. */
    public List<Read> decode(byte[] packet) {
        return decode(packet, unread -> {});
    }

    /** @param unread gets what is left out: no OSC, or of a type that nobody knows */
    List<Read> decode(byte[] packet, Consumer<Bytes> unread) {
        List<Read> messages = new ArrayList<>();
        List<OscElements.Element> elements = OscElements.of(packet);
        if (elements.isEmpty()) {
            unread.accept(Bytes.copyOf(packet));
        }
        for (OscElements.Element element : elements) {
            try {
                boolean read = false;
                if (isModest(element.bytes())
                        && parser.convert(ByteBuffer.wrap(element.bytes())) instanceof OSCMessage m) {
                    List<Object> arguments = new ArrayList<>();
                    m.getArguments().forEach(a -> arguments.add(fromLibrary(a)));
                    OscMessage message = new OscMessage(m.getAddress(), arguments);
                    messages.add(new Read(message, Bytes.copyOf(element.bytes()), element.timeTag()));
                    read = true;
                }
                if (!read) {
                    unread.accept(Bytes.copyOf(element.bytes()));
                }
            } catch (OSCParseException | RuntimeException noOsc) {
                // Strangers send what they like; what stands beside it is read all the same.
                unread.accept(Bytes.copyOf(element.bytes()));
            }
        }
        return messages;
    }

    /** Whether its type tags are few and its arrays flat enough to be read. */
    private static boolean isModest(byte[] message) {
        int comma = 0;
        while (comma < message.length && message[comma] != ',') {
            comma++;
        }
        int depth = 0;
        int types = 0;
        for (int i = comma + 1; i < message.length && message[i] != 0; i++) {
            types++;
            depth += message[i] == '[' ? 1 : message[i] == ']' ? -1 : 0;
            if (depth > DEEPEST_ARRAY || depth < 0 || types > MOST_TYPES) {
                return false;
            }
        }
        return message.length > 0 && message[0] == '/';
    }

    private static Object toLibrary(Object argument) {
        if (argument instanceof Bytes blob) {
            return ByteBuffer.wrap(blob.toArray()).asReadOnlyBuffer();
        } else if (argument instanceof Bare bare) {
            return bare == Bare.NIL ? null : OSCImpulse.INSTANCE;
        } else if (argument instanceof TimeTag tag) {
            return OSCTimeTag64.valueOf(tag.ntp());
        } else if (argument instanceof Symbol symbol) {
            return OSCSymbol.valueOf(symbol.text());
        } else if (argument instanceof Colour colour) {
            return OSCColor.valueOf(octets(colour.rgba()));
        } else if (argument instanceof MidiOctets midi) {
            return OSCMidiMessage.valueOf(octets(midi.octets()));
        } else if (argument instanceof List<?> array) {
            List<Object> elements = new ArrayList<>();
            array.forEach(a -> elements.add(toLibrary(a)));
            return elements;
        }
        return argument;
    }

    private static Object fromLibrary(Object argument) {
        if (argument == null) {
            return Bare.NIL;
        } else if (argument instanceof ByteBuffer blob) {
            byte[] bytes = new byte[blob.remaining()];
            blob.duplicate().get(bytes);
            return Bytes.copyOf(bytes);
        } else if (argument instanceof OSCImpulse) {
            return Bare.IMPULSE;
        } else if (argument instanceof OSCTimeTag64 tag) {
            return new TimeTag(tag.getNtpTime());
        } else if (argument instanceof OSCSymbol symbol) {
            return new Symbol(symbol.toString());
        } else if (argument instanceof OSCColor colour) {
            return new Colour(ByteBuffer.wrap(colour.toContentArray()).getInt());
        } else if (argument instanceof OSCMidiMessage midi) {
            return new MidiOctets(ByteBuffer.wrap(midi.toContentArray()).getInt());
        } else if (argument instanceof OSCUnsigned unsigned) {
            return unsigned.toLong();
        } else if (argument instanceof List<?> array) {
            List<Object> elements = new ArrayList<>();
            array.forEach(a -> elements.add(fromLibrary(a)));
            return List.copyOf(elements);
        }
        return argument;
    }

    private static byte[] octets(int four) {
        return ByteBuffer.allocate(4).putInt(four).array();
    }
}
