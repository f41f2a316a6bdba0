package underbaton.core.ltc;

import java.util.BitSet;
import underbaton.core.midi.TimeCode;
import underbaton.core.midi.TimeCode.Rate;

/**
 * One frame of Linear Time Code (SMPTE ST 12-1): 80 bits, the numbers in decimal digits with the low bit first, eight groups of user bits
 * between them, and a sync word at the end.
 *
 * @param userBits eight groups of four bits, the first in the low ones; shown as eight hexadecimal digits, the last group first
 */
public record LtcFrame(TimeCode time, int userBits) {

    /** How many bits a frame has. */
    public static final int BITS = 80;

    private static final int GROUP = 4;
    private static final int GROUPS = 8;
    private static final int FIRST_USER_BIT = 4;
    private static final int DROP_FRAME = 10;
    private static final int SYNC_AT = 64;
    /** 0011 1111 1111 1101, sent from the left. */
    private static final int SYNC = 0b0011_1111_1111_1101;

    /** Where the bit stands that makes the number of ones even: so each frame begins with the same polarity. */
    private int evenBit() {
        return time.rate() == Rate.PAL_25 ? 59 : 27;
    }

    /** The bits in the order in which they are sent. */
    public BitSet bits() {
        BitSet bits = new BitSet(BITS);
        put(bits, 0, time.frames() % 10);
        put(bits, 8, time.frames() / 10);
        put(bits, 16, time.seconds() % 10);
        put(bits, 24, time.seconds() / 10);
        put(bits, 32, time.minutes() % 10);
        put(bits, 40, time.minutes() / 10);
        put(bits, 48, time.hours() % 10);
        put(bits, 56, time.hours() / 10);
        for (int group = 0; group < GROUPS; group++) {
            put(bits, FIRST_USER_BIT + 2 * GROUP * group, userBits >>> GROUP * group & 0xF);
        }
        bits.set(DROP_FRAME, time.rate() == Rate.DROP_29_97);
        for (int i = 0; i < BITS - SYNC_AT; i++) {
            bits.set(SYNC_AT + i, (SYNC >> BITS - SYNC_AT - 1 - i & 1) == 1);
        }
        bits.set(evenBit(), bits.cardinality() % 2 == 1);
        return bits;
    }

    private static void put(BitSet bits, int at, int number) {
        for (int i = 0; i < GROUP; i++) {
            if ((number >> i & 1) == 1) {
                bits.set(at + i);
            }
        }
    }
}
