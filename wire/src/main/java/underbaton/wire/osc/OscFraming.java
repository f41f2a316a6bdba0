package underbaton.wire.osc;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;

/**
 * Finds Open Sound Control packets in a stream, and makes a stream of them: with the size before each (OSC 1.0, four
 * bytes, most significant first) or framed by SLIP (OSC 1.1, RFC 1055). Which of the two comes in is seen from the first
 * byte: a size is below 16 MB, so it begins with 0, and no SLIP frame does. Not thread-safe.
 */
final class OscFraming {

    static final int LARGEST_PACKET = 65_507;

    private static final int END = 0xC0;
    private static final int ESC = 0xDB;
    private static final int ESC_END = 0xDC;
    private static final int ESC_ESC = 0xDD;
    private static final int SIZE_BYTES = 4;

    /** The stream cannot be read on: a size is beyond every packet's. */
    static final class Broken extends Exception {
        Broken(String message) {
            super(message);
        }
    }

    private final ByteArrayOutputStream packet = new ByteArrayOutputStream();
    private Boolean bySize;
    private boolean escaped;
    private int wanted = -1;

    /** @return the packets that are complete with this chunk, in order */
    List<byte[]> take(byte[] chunk, int length) throws Broken {
        List<byte[]> whole = new ArrayList<>();
        for (int i = 0; i < length; i++) {
            int octet = chunk[i] & 0xFF;
            if (bySize == null) {
                bySize = octet == 0;
            }
            if (bySize) {
                sized(octet, whole);
            } else {
                slip(octet, whole);
            }
        }
        return whole;
    }

    private void sized(int octet, List<byte[]> whole) throws Broken {
        packet.write(octet);
        if (wanted < 0 && packet.size() == SIZE_BYTES) {
            wanted = ByteBuffer.wrap(packet.toByteArray()).getInt();
            packet.reset();
            if (wanted < 0 || wanted > LARGEST_PACKET) {
                throw new Broken("a packet of " + wanted + " bytes was announced");
            }
        }
        if (wanted >= 0 && packet.size() == wanted) {
            whole.add(packet.toByteArray());
            packet.reset();
            wanted = -1;
        }
    }

    private void slip(int octet, List<byte[]> whole) throws Broken {
        if (octet == END) {
            if (packet.size() > 0) {
                whole.add(packet.toByteArray());
            }
            packet.reset();
            escaped = false;
        } else if (octet == ESC) {
            escaped = true;
        } else {
            packet.write(!escaped ? octet : octet == ESC_END ? END : octet == ESC_ESC ? ESC : octet);
            escaped = false;
            if (packet.size() > LARGEST_PACKET) {
                throw new Broken("a packet had no end");
            }
        }
    }

    static byte[] withSize(byte[] packet) {
        return ByteBuffer.allocate(SIZE_BYTES + packet.length)
                .putInt(packet.length)
                .put(packet)
                .array();
    }

    /** With an END before and after, as OSC 1.1 has it. */
    static byte[] inSlip(byte[] packet) {
        ByteArrayOutputStream framed = new ByteArrayOutputStream(packet.length + 2);
        framed.write(END);
        for (byte b : packet) {
            int octet = b & 0xFF;
            if (octet == END || octet == ESC) {
                framed.write(ESC);
                framed.write(octet == END ? ESC_END : ESC_ESC);
            } else {
                framed.write(octet);
            }
        }
        framed.write(END);
        return framed.toByteArray();
    }

    /** In the framing that came in; by size before anything did. */
    byte[] answer(byte[] packet) {
        return bySize == null || bySize ? withSize(packet) : inSlip(packet);
    }
}
