package underbaton.web.score;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import underbaton.core.score.BarMap.MeterMark;
import underbaton.core.score.Position;
import underbaton.core.score.Score;
import underbaton.web.score.Sheet.Bar;
import underbaton.web.score.Sheet.Beat;
import underbaton.web.score.Sheet.Meter;

/** Bars from one to another, and where on the paper their ticks stand. */
final class Ruler {

    private static final double HEAD = 14;
    private static final double METER_ROOM = 34;
    private static final double NUMBER_ROOM = 22;

    private final Score.Times times;
    private final Set<Integer> meterBars;
    private final double[] starts;
    private final long firstTick;
    private final long lastTick;
    final int from;
    final int to;
    final double left;
    final double right;
    private final double perTick;

    /** @param left the line's first x, and its last */
    Ruler(Score.Times times, int from, int to, double left, double right) {
        this.times = times;
        this.left = left;
        this.from = from;
        this.to = to;
        this.right = right;
        this.meterBars = times.score().meters().stream().map(this::stands).collect(Collectors.toSet());
        this.firstTick = times.bars().tickOfBar(from);
        this.lastTick = times.bars().tickOfBar(to + 1);
        double heads = 0;
        for (int bar = from; bar <= to; bar++) {
            heads += head(bar);
        }
        this.perTick = (right - left - heads) / (lastTick() - firstTick());
        this.starts = new double[to - from + 2];
        starts[0] = left;
        for (int bar = from; bar <= to; bar++) {
            long ticks = times.bars().tickOfBar(bar + 1) - times.bars().tickOfBar(bar);
            starts[bar - from + 1] = starts[bar - from] + head(bar) + ticks * perTick;
        }
    }

    long firstTick() {
        return firstTick;
    }

    /** Where the bar behind the line begins. */
    long lastTick() {
        return lastTick;
    }

    /** Room before a bar's first beat, more where a meter stands there. */
    private double head(int bar) {
        double usual = Math.min(HEAD, (right - left) / (to - from + 1) / 4);
        return meterBars.contains(bar) ? METER_ROOM + usual : usual;
    }

    boolean holds(long tick) {
        return tick >= firstTick() && tick < lastTick();
    }

    double x(long tick) {
        int bar = times.bars().position(tick).bar();
        return barX(bar) + head(bar) + (tick - times.bars().tickOfBar(bar)) * perTick;
    }

    /** @param bar one of the line's */
    double barX(int bar) {
        return starts[bar - from];
    }

    double barEnd(int bar) {
        return bar >= to ? right : barX(bar + 1);
    }

    List<Bar> bars() {
        List<Bar> bars = new ArrayList<>();
        int every = 1;
        while ((right - left) / (to - from + 1) * every < NUMBER_ROOM) {
            every *= 2;
        }
        for (int bar = from; bar <= to; bar++) {
            long tick = times.bars().tickOfBar(bar);
            long next = times.bars().tickOfBar(bar + 1);
            double first = barX(bar) + head(bar);
            int step = times.bars().meter(bar).beatTicks();
            List<Beat> beats = new ArrayList<>();
            // A pick-up may begin within a beat.
            for (long t = tick; t < next; ) {
                Position place = times.bars().position(t);
                String beat = place.beat() + (place.tick() == 0 ? "" : ":" + place.tick());
                beats.add(new Beat(t, first + (t - tick) * perTick, beat));
                t += step - place.tick();
            }
            boolean numbered = bar == from || (bar - 1) % every == 0;
            bars.add(new Bar(bar, barX(bar), barX(bar + 1), numbered, beats));
        }
        return bars;
    }

    List<Meter> meters() {
        return times.score().meters().stream()
                .filter(m -> stands(m) >= from && stands(m) <= to)
                .map(m -> new Meter(
                        barX(stands(m)) + 8,
                        m.meter().beats(),
                        m.meter().unit(),
                        m.meter().counted().isEmpty() ? "" : "in " + m.meter().countedBeats()))
                .toList();
    }

    /** The bar before which a meter is drawn: that of bar 1 before its pick-up. */
    private int stands(MeterMark mark) {
        return mark.bar() == 1 ? times.score().firstBar() : mark.bar();
    }
}
