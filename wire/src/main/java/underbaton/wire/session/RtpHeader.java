package underbaton.wire.session;

import java.nio.ByteBuffer;
import java.util.Optional;

/**
 * The twelve bytes before the MIDI payload (RFC 3550 §5.1, payload type 97 as sessions use it).
 *
 * @param sequence 0–65,535
 * @param timestamp units of 100 µs, the low 32 bits
 */
record RtpHeader(int sequence, int timestamp, int ssrc) {

    private static final int VERSION_2 = 0x80;
    private static final int PAYLOAD_TYPE = 97;
    private static final int MARKER = 0x80;
    static final int LENGTH = 12;

    /** @param commands whether the packet has any, which is what the marker bit says (RFC 6295 §2.1) */
    void put(ByteBuffer out, boolean commands) {
        out.put((byte) VERSION_2)
                .put((byte) (commands ? MARKER | PAYLOAD_TYPE : PAYLOAD_TYPE))
                .putShort((short) sequence)
                .putInt(timestamp)
                .putInt(ssrc);
    }

    /** Reads a header and leaves the buffer at the payload; empty when it is none of ours. */
    static Optional<RtpHeader> get(ByteBuffer in) {
        if (in.remaining() < LENGTH) {
            return Optional.empty();
        }
        int first = in.get() & 0xFF;
        int type = in.get() & 0x7F;
        RtpHeader header = new RtpHeader(in.getShort() & 0xFFFF, in.getInt(), in.getInt());
        int contributors = first & 0x0F;
        boolean extended = (first & 0x10) != 0;
        boolean ours = (first & 0xC0) == VERSION_2 && type == PAYLOAD_TYPE && in.remaining() >= contributors * 4;
        if (!ours) {
            return Optional.empty();
        }
        in.position(in.position() + contributors * 4);
        return extended && !skipExtension(in) ? Optional.empty() : Optional.of(header);
    }

    private static boolean skipExtension(ByteBuffer in) {
        if (in.remaining() < 4) {
            return false;
        }
        in.getShort();
        int words = in.getShort() & 0xFFFF;
        if (in.remaining() < words * 4) {
            return false;
        }
        in.position(in.position() + words * 4);
        return true;
    }
}
