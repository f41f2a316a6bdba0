package underbaton.core.midi;

/**
 * Turns a stream of MIDI bytes, in any chunks, into messages (MIDI 1.0 Detailed Specification).
 *
 * <p>A state machine that takes one byte at a time, so chunking cannot matter. Running status is kept across real-time
 * bytes and cancelled by system common and exclusive. What is not MIDI is reported once where it stands and passed
 * over; parsing goes on at the next status byte. Nothing is thrown and at most {@code sysExLimit} bytes are kept.
 *
 * <p>Not thread-safe.
 */
public final class MidiParser {

    /** What could be wrong with a stream. */
    public enum Trouble {
        /** A data byte with no status to belong to. */
        STRAY_DATA,
        /** A status byte came before a message had all its data. */
        CUT_SHORT,
        /** A status that the specification leaves undefined (F4, F5, F9, FD). */
        UNDEFINED_STATUS,
        /** F7 with no exclusive open. */
        STRAY_END,
        /** An exclusive longer than the limit; dropped whole. */
        TOO_LONG
    }

    /** Gets what the parser finds, in the order of the stream, on the calling thread. */
    public interface Sink {
        /** A message is whole. */
        void message(MidiMessage message);

        /** Octets that are no message; what comes behind them is read again. */
        void trouble(Trouble trouble);
    }

    private final int sysExLimit;
    private final Sink sink;
    private final byte[] exclusive;
    private int exclusiveLength;
    private boolean inExclusive;
    private boolean tooLong;
    /** Status that the next data bytes belong to, 0 for none. */
    private int status;

    private int needed;
    private int have;
    private int first;

    /** @param sysExLimit most bytes kept between F0 and F7, at least 1 */
    public MidiParser(int sysExLimit, Sink sink) {
        this.sysExLimit = Limits.within("SysEx limit", sysExLimit, 1, 1 << 24);
        this.sink = sink;
        this.exclusive = new byte[sysExLimit];
    }

    /** Takes octets as a stream brings them; a message may come in pieces. */
    public void accept(byte[] chunk, int from, int length) {
        for (int i = from; i < from + length; i++) {
            accept(chunk[i] & 0xFF);
        }
    }

    /** @param octet 0–255 */
    public void accept(int octet) {
        if (octet >= 0xF8) {
            RealTime.of(octet).ifPresentOrElse(sink::message, () -> sink.trouble(Trouble.UNDEFINED_STATUS));
        } else if (octet >= 0x80) {
            status(octet);
        } else if (inExclusive) {
            exclusiveData(octet);
        } else {
            data(octet);
        }
    }

    private void status(int octet) {
        if (inExclusive) {
            endExclusive(octet == 0xF7);
            if (octet == 0xF7) {
                return;
            }
        } else if (have > 0 || status >= 0xF0) {
            sink.trouble(Trouble.CUT_SHORT);
        }
        have = 0;
        status = 0;
        switch (octet) {
            case 0xF0 -> {
                inExclusive = true;
                exclusiveLength = 0;
                tooLong = false;
            }
            case 0xF4, 0xF5 -> sink.trouble(Trouble.UNDEFINED_STATUS);
            case 0xF6 -> sink.message(new SystemCommon.TuneRequest());
            case 0xF7 -> sink.trouble(Trouble.STRAY_END);
            default -> {
                status = octet;
                needed = dataBytes(octet);
            }
        }
    }

    private void data(int octet) {
        if (status == 0) {
            sink.trouble(Trouble.STRAY_DATA);
            return;
        }
        have++;
        if (have < needed) {
            first = octet;
            return;
        }
        int one = needed == 1 ? octet : first;
        if (status < 0xF0) {
            sink.message(ChannelMessage.decode(status, one, octet));
        } else if (status == 0xF1 || status == 0xF2 || status == 0xF3) {
            sink.message(SystemCommon.decode(status, one, octet));
            status = 0;
        }
        have = 0;
    }

    private void exclusiveData(int octet) {
        if (exclusiveLength < sysExLimit) {
            exclusive[exclusiveLength++] = (byte) octet;
        } else if (!tooLong) {
            tooLong = true;
            sink.trouble(Trouble.TOO_LONG);
        }
    }

    private void endExclusive(boolean whole) {
        inExclusive = false;
        if (tooLong) {
            return;
        }
        if (whole) {
            sink.message(Exclusive.decode(Bytes.copyOf(exclusive, 0, exclusiveLength)));
        } else {
            sink.trouble(Trouble.CUT_SHORT);
        }
    }

    /**
     * How many data bytes follow a status.
     *
     * @param status 80–EF, F1, F2 or F3; for any other the answer is 0
     */
    public static int dataBytes(int status) {
        return switch (status & 0xF0) {
            case 0xC0, 0xD0 -> 1;
            case 0xF0 -> status == 0xF2 ? 2 : status == 0xF1 || status == 0xF3 ? 1 : 0;
            default -> status < 0x80 ? 0 : 2;
        };
    }
}
