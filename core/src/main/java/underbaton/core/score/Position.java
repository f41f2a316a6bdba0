package underbaton.core.score;

/**
 * A place as musicians name it.
 *
 * @param bar 1 for the first whole bar, 0 for a pick-up before it
 * @param beat 1 for the first of the bar, in units of the meter
 * @param tick within the beat, from 0
 */
public record Position(int bar, int beat, int tick) {

    /** {@code 17:3}, and the tick behind it where it is not 0: {@code 17:3:480}. */
    @Override
    public String toString() {
        return bar + ":" + beat + (tick == 0 ? "" : ":" + tick);
    }
}
