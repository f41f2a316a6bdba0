package underbaton.core.exchange;

import java.util.ArrayList;
import java.util.List;
import underbaton.core.score.BeatUnit;
import underbaton.core.score.Score;
import underbaton.core.score.TempoMap;

/**
 * The tempo events of a Standard MIDI File that keep the time of a score.
 *
 * <p>A file counts whole microseconds a quarter note, so a tempo of 121 cannot be written; one event for it would be late
 * by a tenth of a millisecond after some minutes. The score is therefore cut into pieces, and each piece gets the tempo
 * that leads from where the file is to where the score should be; the error is carried on and never grows. A piece is a
 * quarter note, or a part of one that divides it, and its tempo is chosen so that it lasts whole microseconds: players
 * that round each stretch down stay in time too. Where the standing tempo will do, nothing is written. A gradual change
 * becomes steps of a sixteenth; a hold a few very slow ticks, since no tempo may last longer than 16.7 s a quarter.
 */
final class TempoTrack {

    /** Ticks of the file in one of the score. */
    static final int FINE = 10;

    static final int DIVISION = FINE * BeatUnit.QUARTER_TICKS;

    private static final int QUARTER = BeatUnit.QUARTER_TICKS;
    private static final int SLOWEST = 0xFFFFFF;
    /** How far the file may be behind the score; it is never before it, since players cut off what is not whole, µs. */
    private static final double MOST_BEHIND = 1;

    private static final double EXACT = 1e-3;

    private final TempoMap tempi;
    private final List<Piece> pieces = new ArrayList<>();
    private long tick;
    private long micros;

    /**
     * A stretch of one tempo.
     *
     * @param tick of the score, where it begins
     * @param micros when it begins
     * @param tempo µs a quarter note
     */
    record Piece(long tick, long micros, int tempo) {}

    /** @param end the tick up to which the score is written */
    TempoTrack(Score.Times times, long end) {
        this.tempi = times.tempi();
        List<TempoMap.Change> changes = tempi.changes();
        for (int i = 0; i < changes.size(); i++) {
            TempoMap.Change change = changes.get(i);
            long until = i + 1 < changes.size() ? changes.get(i + 1).tick() : end;
            if (change.held()) {
                work(QUARTER / 16, until);
            }
            while (tick < until) {
                long longest = Math.min(until - tick, change.gradual() ? QUARTER / 4 : QUARTER);
                piece(divisor(longest), !change.gradual());
            }
        }
    }

    /** Slow pieces until the hold has passed. */
    private void work(int length, long until) {
        boolean behind = true;
        while (behind && tick < until) {
            int ticks = divisor(Math.min(until - tick, length));
            double wanted = wanted(ticks);
            piece(ticks, false);
            behind = wanted > SLOWEST;
        }
    }

    private static int divisor(long longest) {
        int divisor = (int) Math.min(longest, QUARTER);
        while (QUARTER % divisor != 0) {
            divisor--;
        }
        return divisor;
    }

    /** The tempo that would lead from where the file is to where the score will be. */
    private double wanted(int ticks) {
        return (tempi.nanos(tick + ticks) / 1000.0 - micros) * QUARTER / ticks;
    }

    private void piece(int ticks, boolean mayStay) {
        int parts = QUARTER / ticks;
        double wanted = wanted(ticks);
        int standing = pieces.isEmpty() ? 0 : pieces.get(pieces.size() - 1).tempo;
        double behind = (standing - wanted) / parts;
        boolean stays = mayStay && standing % parts == 0 && behind > -EXACT && behind < MOST_BEHIND;
        long next = Math.max(1, (long) Math.ceil(wanted / parts - EXACT)) * parts;
        int tempo = stays ? standing : (int) Math.min(next, SLOWEST / parts * parts);
        if (tempo != standing) {
            pieces.add(new Piece(tick, micros, tempo));
        }
        tick += ticks;
        micros += tempo / parts;
    }

    List<Piece> pieces() {
        return pieces;
    }

    /**
     * By how much the file's last bar stands early: 0 where it keeps up with the score, more where a hold is longer than what
     * follows it can make up for, or the tempo lies below what a file knows.
     */
    long earlyMicros() {
        return Math.max(0, tempi.nanos(tick) / 1000 - micros);
    }

    /**
     * The nearest tick of the file.
     *
     * @param nanos since the item began
     */
    long fineTick(long nanos) {
        double at = nanos / 1000.0;
        int low = 0;
        for (int high = pieces.size() - 1; low < high; ) {
            int middle = (low + high + 1) / 2;
            if (pieces.get(middle).micros <= at + MOST_BEHIND) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        Piece piece = pieces.get(low);
        return piece.tick * FINE + Math.max(0, Math.round((at - piece.micros) * DIVISION / piece.tempo));
    }
}
