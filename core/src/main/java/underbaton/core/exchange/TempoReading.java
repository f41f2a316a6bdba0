package underbaton.core.exchange;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import underbaton.core.score.BarMap;
import underbaton.core.score.BeatUnit;
import underbaton.core.score.Meter;
import underbaton.core.score.Tempo;
import underbaton.core.score.TempoMark;

/**
 * Reads the tempo events of a file as the tempi that were meant. A file counts whole microseconds a quarter note, so 121
 * beats a minute stand there as 495,868, or as a row of 495,868 and 495,867 by turns. Events are taken together as long
 * as one tempo passes through all their moments within a microsecond, or within a microsecond a quarter note where one event
 * holds for long; of all such tempi the one with the fewest decimals is taken.
 */
final class TempoReading {

    private static final double MICROS_A_MINUTE = 60_000_000;
    private static final int PLACES = 6;

    private final TreeMap<Long, Integer> events;
    private final int division;
    private final long end;

    /**
     * @param events by their ticks: µs a quarter note; the first at 0
     * @param division ticks a quarter note
     * @param end of the file, in ticks
     */
    TempoReading(TreeMap<Long, Integer> events, int division, long end) {
        this.events = events;
        this.division = division;
        this.end = Math.max(end, events.lastKey() + 1);
    }

    List<TempoMark> marks(BarMap bars) {
        List<TempoMark> marks = new ArrayList<>();
        List<Long> ticks = List.copyOf(events.keySet());
        int i = 0;
        while (i < ticks.size()) {
            Run run = new Run();
            int first = i;
            while (i < ticks.size()
                    && run.takes(
                            quarters(ticks.get(i), i + 1 < ticks.size() ? ticks.get(i + 1) : end),
                            events.get(ticks.get(i)))) {
                i++;
            }
            long tick = ours(ticks.get(first), division);
            Tempo tempo = run.roundest(unit(bars.meter(bars.position(tick).bar())));
            if (!marks.isEmpty() && marks.get(marks.size() - 1).tick() == tick) {
                marks.remove(marks.size() - 1);
            }
            if (marks.isEmpty() || !marks.get(marks.size() - 1).tempo().equals(tempo)) {
                marks.add(TempoMark.at(tick, tempo));
            }
        }
        return marks;
    }

    private double quarters(long from, long to) {
        return (double) (to - from) / division;
    }

    /** The nearest tick of a score. */
    static long ours(long tick, int division) {
        return (2 * tick * BeatUnit.QUARTER_TICKS + division) / (2L * division);
    }

    /** In 6/8, 9/8 and 12/8 musicians count dotted quarters. */
    private static BeatUnit unit(Meter meter) {
        boolean compound = meter.unit() == 8 && meter.beats() > 3 && meter.beats() % 3 == 0;
        return compound ? BeatUnit.DOTTED_QUARTER : BeatUnit.QUARTER;
    }

    /** Events through which one tempo passes; in µs and quarters since the first. */
    private static final class Run {
        private double least = 0;
        private double most = Double.MAX_VALUE;
        private double micros;
        private double quarters;

        boolean takes(double length, int tempo) {
            double nextMicros = micros + length * tempo;
            double nextQuarters = quarters + length;
            double tolerance = Math.max(1, length);
            double low = Math.max(least, (nextMicros - tolerance) / nextQuarters);
            double high = Math.min(most, (nextMicros + tolerance) / nextQuarters);
            if (low > high) {
                return false;
            }
            least = low;
            most = high;
            micros = nextMicros;
            quarters = nextQuarters;
            return true;
        }

        Tempo roundest(BeatUnit unit) {
            double scale = MICROS_A_MINUTE * BeatUnit.QUARTER_TICKS / unit.ticks();
            double slowest = Math.max(1, scale / most);
            double fastest = Math.min(999.999999, scale / least);
            for (int places = 0; places < PLACES; places++) {
                BigDecimal candidate = BigDecimal.valueOf(slowest).setScale(places, RoundingMode.CEILING);
                if (candidate.doubleValue() <= fastest) {
                    return Tempo.of(unit, candidate.doubleValue());
                }
            }
            return Tempo.of(unit, Math.min(999.999999, (slowest + fastest) / 2));
        }
    }
}
