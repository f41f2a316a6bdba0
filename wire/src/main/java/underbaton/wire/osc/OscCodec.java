package underbaton.wire.osc;

import com.illposed.osc.BufferBytesReceiver;
import com.illposed.osc.OSCBundle;
import com.illposed.osc.OSCMessage;
import com.illposed.osc.OSCPacket;
import com.illposed.osc.OSCParseException;
import com.illposed.osc.OSCParser;
import com.illposed.osc.OSCSerializeException;
import com.illposed.osc.OSCSerializerAndParserBuilder;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.OscMessage;

/** Open Sound Control 1.0 packets, written and read by the OSC library. Not thread-safe. */
public final class OscCodec {

    private static final int LARGEST_PACKET = 65_507;
    private static final int DEEPEST_BUNDLE = 8;

    private final ByteBuffer room = ByteBuffer.allocate(LARGEST_PACKET);
    private final OSCParser parser = new OSCSerializerAndParserBuilder().buildParser();

    /** @throws IllegalArgumentException when the message does not fit into a datagram */
    public Bytes encode(OscMessage message) {
        room.clear();
        try {
            new OSCSerializerAndParserBuilder()
                    .buildSerializer(new BufferBytesReceiver(room))
                    .write(new OSCMessage(message.address(), message.arguments()));
        } catch (OSCSerializeException | RuntimeException tooLong) {
            throw new IllegalArgumentException("this OSC message cannot be written: " + tooLong.getMessage(), tooLong);
        }
        return Bytes.copyOf(room.array(), 0, room.position());
    }

    /**
     * The messages of a packet, those of bundles in their order. Anything that is no OSC, or has arguments of other
     * types than ours, is left out: strangers send what they like.
     */
    public List<OscMessage> decode(byte[] packet) {
        List<OscMessage> messages = new ArrayList<>();
        try {
            collect(parser.convert(ByteBuffer.wrap(packet)), messages, 0);
        } catch (OSCParseException | RuntimeException noOsc) {
            return List.copyOf(messages);
        }
        return messages;
    }

    private static void collect(OSCPacket packet, List<OscMessage> into, int depth) {
        if (packet instanceof OSCMessage message) {
            into.add(new OscMessage(message.getAddress(), message.getArguments()));
        } else if (packet instanceof OSCBundle bundle && depth < DEEPEST_BUNDLE) {
            bundle.getPackets().forEach(p -> collect(p, into, depth + 1));
        }
    }
}
