package underbaton.core.midi;

/** System common messages (status F1–F6), which cancel running status. */
public sealed interface SystemCommon extends MidiMessage {

    /**
     * F1, one of eight pieces of an MTC position (RP-004/008).
     *
     * @param piece 0–7: frames low, frames high, seconds low … hours high with rate
     * @param nibble 0–15
     */
    record QuarterFrame(int piece, int nibble) implements SystemCommon {

        /** @param piece 0–7 of this position */
        public static QuarterFrame of(TimeCode time, int piece) {
            int[] fields = {
                time.frames(), time.seconds(), time.minutes(), time.rate().ordinal() << 5 | time.hours()
            };
            int field = fields[piece / 2];
            return new QuarterFrame(piece, piece % 2 == 0 ? field & 0x0F : field >> 4);
        }

        public QuarterFrame {
            Limits.within("piece", piece, 0, 7);
            Limits.within("nibble", nibble, 0, 15);
        }

        @Override
        public Bytes encode() {
            return Bytes.of(0xF1, piece << 4 | nibble);
        }
    }

    /**
     * F2, low seven bits first.
     *
     * @param sixteenths 0–16383, in units of six clocks
     */
    record SongPosition(int sixteenths) implements SystemCommon {
        public SongPosition {
            Limits.fourteen("song position", sixteenths);
        }

        @Override
        public Bytes encode() {
            return Bytes.of(0xF2, sixteenths & 0x7F, sixteenths >> 7);
        }
    }

    /** F3. */
    record SongSelect(int song) implements SystemCommon {
        public SongSelect {
            Limits.seven("song", song);
        }

        @Override
        public Bytes encode() {
            return Bytes.of(0xF3, song);
        }
    }

    /** F6. */
    record TuneRequest() implements SystemCommon {
        @Override
        public Bytes encode() {
            return Bytes.of(0xF6);
        }
    }

    /** @param status F1, F2, F3 or F6; unused data bytes are ignored */
    static SystemCommon decode(int status, int first, int second) {
        return switch (status) {
            case 0xF1 -> new QuarterFrame(first >> 4, first & 0x0F);
            case 0xF2 -> new SongPosition(first | second << 7);
            case 0xF3 -> new SongSelect(first);
            case 0xF6 -> new TuneRequest();
            default -> throw new IllegalArgumentException("no system common status: " + Integer.toHexString(status));
        };
    }
}
