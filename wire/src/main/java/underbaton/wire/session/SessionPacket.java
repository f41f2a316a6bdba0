package underbaton.wire.session;

import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/**
 * The packets that open, keep and close a network MIDI session: {@code FF FF}, two letters, then their fields in network
 * byte order. Identifiers (SSRC) and tokens are 32 bits.
 */
sealed interface SessionPacket {

    int VERSION = 2;
    int LONGEST_NAME = 255;

    /** Who sent it. */
    int ssrc();

    ByteBuffer encode();

    /** {@code IN}: may we talk? Sent to the control port first, then to the data port. */
    record Invitation(int token, int ssrc, String name) implements SessionPacket {
        @Override
        public ByteBuffer encode() {
            return exchange("IN", token, ssrc, name);
        }
    }

    /** {@code OK}: yes. */
    record Acceptance(int token, int ssrc, String name) implements SessionPacket {
        @Override
        public ByteBuffer encode() {
            return exchange("OK", token, ssrc, name);
        }
    }

    /** {@code NO}. */
    record Rejection(int token, int ssrc) implements SessionPacket {
        @Override
        public ByteBuffer encode() {
            return exchange("NO", token, ssrc, "");
        }
    }

    /** {@code BY}: the session is over. */
    record Goodbye(int token, int ssrc) implements SessionPacket {
        @Override
        public ByteBuffer encode() {
            return exchange("BY", token, ssrc, "");
        }
    }

    /**
     * {@code CK}: three of them measure the round trip and the clocks' offset.
     *
     * @param count 0, 1 or 2: how many times are filled in, less one
     * @param first when the initiator sent count 0, in units of 100 µs of its clock
     * @param second when the other side got it, by its clock
     * @param third when the initiator got count 1
     */
    record Sync(int ssrc, int count, long first, long second, long third) implements SessionPacket {
        @Override
        public ByteBuffer encode() {
            return header("CK", 36)
                    .putInt(ssrc)
                    .put((byte) count)
                    .put(new byte[3])
                    .putLong(first)
                    .putLong(second)
                    .putLong(third)
                    .flip();
        }
    }

    /** {@code RS}: the highest sequence number got so far. */
    record Feedback(int ssrc, int sequence) implements SessionPacket {
        @Override
        public ByteBuffer encode() {
            return header("RS", 12).putInt(ssrc).putInt(sequence << 16).flip();
        }
    }

    private static ByteBuffer header(String letters, int length) {
        return ByteBuffer.allocate(length).putShort((short) 0xFFFF).put(letters.getBytes(StandardCharsets.US_ASCII));
    }

    private static ByteBuffer exchange(String letters, int token, int ssrc, String name) {
        byte[] text = name.isEmpty() ? new byte[0] : (name + "\0").getBytes(StandardCharsets.UTF_8);
        return header(letters, 16 + text.length)
                .putInt(VERSION)
                .putInt(token)
                .putInt(ssrc)
                .put(text)
                .flip();
    }

    /** Whether a datagram claims to be one of these, and not RTP (whose first two bits are 10). */
    static boolean claims(ByteBuffer datagram) {
        return datagram.remaining() >= 4 && datagram.getShort(datagram.position()) == (short) 0xFFFF;
    }

    /** @return empty for anything that is no complete packet of a known kind and version */
    static Optional<SessionPacket> decode(ByteBuffer datagram) {
        try {
            if (!claims(datagram)) {
                return Optional.empty();
            }
            datagram.getShort();
            String letters = "" + (char) datagram.get() + (char) datagram.get();
            return switch (letters) {
                case "IN", "OK", "NO", "BY" -> decodeExchange(letters, datagram);
                case "CK" -> decodeSync(datagram);
                case "RS" -> Optional.of(new Feedback(datagram.getInt(), datagram.getInt() >>> 16));
                default -> Optional.empty();
            };
        } catch (BufferUnderflowException cutShort) {
            return Optional.empty();
        }
    }

    private static Optional<SessionPacket> decodeExchange(String letters, ByteBuffer in) {
        if (in.getInt() != VERSION) {
            return Optional.empty();
        }
        int token = in.getInt();
        int ssrc = in.getInt();
        return Optional.of(
                switch (letters) {
                    case "IN" -> new Invitation(token, ssrc, name(in));
                    case "OK" -> new Acceptance(token, ssrc, name(in));
                    case "NO" -> new Rejection(token, ssrc);
                    default -> new Goodbye(token, ssrc);
                });
    }

    private static String name(ByteBuffer in) {
        byte[] text = new byte[Math.min(in.remaining(), LONGEST_NAME)];
        in.get(text);
        int end = 0;
        while (end < text.length && text[end] != 0) {
            end++;
        }
        return new String(text, 0, end, StandardCharsets.UTF_8);
    }

    private static Optional<SessionPacket> decodeSync(ByteBuffer in) {
        int ssrc = in.getInt();
        int count = in.get();
        in.get(new byte[3]);
        Sync sync = new Sync(ssrc, count, in.getLong(), in.getLong(), in.getLong());
        return count >= 0 && count <= 2 ? Optional.of(sync) : Optional.empty();
    }
}
