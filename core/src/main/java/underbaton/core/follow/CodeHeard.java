package underbaton.core.follow;

import java.util.Optional;
import underbaton.core.midi.FullFrame;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.SystemCommon.QuarterFrame;
import underbaton.core.midi.TimeCode;
import underbaton.core.midi.TimeCode.Rate;

/**
 * What a sender of MIDI Time Code has said (RP-004/008): four quarter frames a frame, of which eight in their order name the frame at which
 * the first of them was sent; and full frames, which name a place by themselves. Once the place is known each single quarter frame tells
 * it, so that lost ones do no harm; one that does not fit what is expected twice makes us wait for eight whole ones. Code that runs
 * backwards is not understood. Immutable.
 *
 * @param nibbles of the last eight pieces, four bits a piece
 * @param came how many pieces have come one behind the other
 * @param last the piece that came last; −1 for none
 * @param place where it is; empty while nobody knows
 * @param moves whether it runs; else it stands there since a full frame
 * @param doubts how many pieces in a row did not fit
 * @param run counts each new place: that of a full frame, and of a jump
 * @param atNanos when something came last, by the clock of the events
 */
public record CodeHeard(
        int nibbles, int came, int last, Optional<Place> place, boolean moves, int doubts, int run, long atNanos) {

    public static final CodeHeard NOTHING = new CodeHeard(0, 0, -1, Optional.empty(), false, 0, 0, Long.MIN_VALUE);

    private static final int PIECES = 8;
    private static final int QUARTERS = 4;
    private static final int NIBBLE = 0xF;
    private static final int MOST_DOUBTS = 2;
    private static final int HOURS_OF_RATE = 5;

    /** A place of the day. @param quarter of a frame, counted since midnight */
    public record Place(Rate rate, long quarter) {

        /** Since midnight of the code, ns. */
        public long nanos() {
            return rate.quarterNanos(quarter);
        }

        /** Its frame. */
        public TimeCode frame() {
            return TimeCode.ofCount(rate, Math.floorDiv(quarter, QUARTERS));
        }

        private Place after(long quarters) {
            return new Place(rate, quarter + quarters);
        }

        private int nibbleOf(int piece) {
            return QuarterFrame.of(TimeCode.ofCount(rate, Math.floorDiv(quarter - piece, QUARTERS)), piece)
                    .nibble();
        }
    }

    /** Whether a message is of time code at all. */
    public static boolean is(MidiMessage message) {
        return message instanceof QuarterFrame || message instanceof FullFrame;
    }

    /** @param nanos when it arrived, by the clock of the events */
    public CodeHeard heard(MidiMessage message, long nanos) {
        if (message instanceof FullFrame full) {
            Place there = new Place(full.time().rate(), full.time().count() * QUARTERS);
            int next = place.filter(there::equals).isPresent() && !moves ? run : run + 1;
            return new CodeHeard(0, 0, -1, Optional.of(there), false, 0, next, nanos);
        }
        return message instanceof QuarterFrame quarter ? heard(quarter, nanos) : this;
    }

    private CodeHeard heard(QuarterFrame q, long nanos) {
        int piece = q.piece();
        int all = nibbles & ~(NIBBLE << QUARTERS * piece) | q.nibble() << QUARTERS * piece;
        int inRow = piece == (last + 1) % PIECES && last >= 0 ? came + 1 : 1;
        Optional<Place> expected = expected(piece, nanos);
        if (piece == PIECES - 1 && inRow >= PIECES) {
            Optional<Place> told = told(all);
            boolean same = told.equals(expected);
            return new CodeHeard(all, inRow, piece, told, told.isPresent(), 0, same ? run : run + 1, nanos);
        }
        boolean fits = expected.filter(e -> e.nibbleOf(piece) == q.nibble()).isPresent();
        int doubt = fits ? 0 : doubts + 1;
        return new CodeHeard(
                all,
                inRow,
                piece,
                doubt >= MOST_DOUBTS ? Optional.empty() : expected,
                moves || fits,
                doubt,
                run,
                nanos);
    }

    /** Where it is if it has gone on as it went, pieces that were lost counted in. */
    private Optional<Place> expected(int piece, long nanos) {
        if (place.isEmpty()) {
            return place;
        }
        Place p = place.get();
        if (!moves) {
            // A full frame stands for the moment before its first quarter frame.
            return Optional.of(p.after(piece));
        }
        int least = Math.floorMod(piece - last - 1, PIECES) + 1;
        double gone = (nanos - atNanos) / (p.rate.quarterSeconds() * 1e9);
        long rounds = Math.max(0, Math.round((gone - least) / PIECES));
        return Optional.of(p.after(least + rounds * PIECES));
    }

    /** The place at the last of eight pieces. */
    private static Optional<Place> told(int all) {
        int[] fields = new int[QUARTERS];
        for (int i = 0; i < QUARTERS; i++) {
            fields[i] = all >>> 8 * i & 0xFF;
        }
        Rate rate = Rate.values()[fields[3] >> HOURS_OF_RATE & 3];
        try {
            TimeCode first = new TimeCode(rate, fields[3] & 0x1F, fields[2], fields[1], fields[0]);
            return Optional.of(new Place(rate, first.count() * QUARTERS + PIECES - 1));
        } catch (IllegalArgumentException noPlace) {
            return Optional.empty();
        }
    }

    /** The same with all its moments so many ns later. */
    CodeHeard shifted(long nanos) {
        return equals(NOTHING) ? this : new CodeHeard(nibbles, came, last, place, moves, doubts, run, atNanos + nanos);
    }
}
