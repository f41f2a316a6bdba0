package underbaton.core.score;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.TreeMap;
import underbaton.core.rig.Refusal;

/**
 * Turns positions into times and back, for an item of any length.
 *
 * <p>The item is cut at every change into stretches, each with the exact time (a fraction of nanoseconds) at which it
 * begins; a time is the beginning of its stretch plus the way within it, so no error adds up. Within a stretch of steady
 * tempo the time is a multiple of the tick's exact length. Within a gradual change the speed goes linearly with the
 * position, {@code v(x) = v0 + (v1 − v0)·x / L}, which gives in closed form
 *
 * <pre>
 *   t(x) = L / (v1 − v0) · ln(v(x) / v0)        x(t) = L·v0 / (v1 − v0) · (exp(t·(v1 − v0) / L) − 1)
 * </pre>
 *
 * <p>with {@code L} the span in ticks and {@code v} in ticks a nanosecond; its whole duration is rounded to a nanosecond
 * once, where the stretch after it begins. Immutable.
 */
public final class TempoMap {

    private final List<Stretch> stretches;

    /**
     * @param tick where it begins
     * @param nanos when, exactly; after the hold that may stand there
     * @param before when what stands at the tick itself comes: before that hold
     * @param nanosPerTick of a steady tempo
     * @param ramp length of the gradual change that this is, in ticks; 0 for a steady tempo
     */
    private record Stretch(
            long tick, Fraction nanos, Fraction before, Tempo from, Tempo to, long ramp, Fraction nanosPerTick) {

        /** Time from the beginning of the stretch, in ns. */
        Fraction nanosAfter(long ticks) {
            if (ramp == 0) {
                return nanosPerTick.times(Fraction.of(ticks));
            }
            double v0 = from.ticksPerNano();
            double change = to.ticksPerNano() - v0;
            return Fraction.of(Math.round(ramp / change * Math.log1p(change * ticks / ramp / v0)));
        }

        /** The nearest tick, from the beginning of the stretch. */
        long ticksAfter(Fraction time) {
            if (ramp == 0) {
                return time.dividedBy(nanosPerTick).rounded();
            }
            double v0 = from.ticksPerNano();
            double change = to.ticksPerNano() - v0;
            return Math.round(ramp * v0 / change * Math.expm1(time.rounded() * change / ramp));
        }
    }

    /**
     * @param marks the first must stand at tick 0 and begin at once
     * @param holds at most one at a tick
     * @throws Refusal when two marks stand at one place, or a gradual change runs into the next mark
     */
    public TempoMap(List<TempoMark> marks, List<Hold> holds) {
        List<TempoMark> sorted =
                marks.stream().sorted(Comparator.comparingLong(TempoMark::tick)).toList();
        if (sorted.isEmpty() || sorted.get(0).tick() != 0 || sorted.get(0).overTicks() != 0) {
            throw new Refusal("tempo", "The item needs a tempo at its start.");
        }
        stretches = stretches(sorted, cuts(sorted), holds);
    }

    /** From each cut on: the mark that rules there, and whether it is still being reached. */
    private static TreeMap<Long, TempoMark> cuts(List<TempoMark> sorted) {
        TreeMap<Long, TempoMark> cuts = new TreeMap<>();
        long reached = 0;
        for (TempoMark mark : sorted) {
            if (mark.tick() < reached
                    || cuts.containsKey(mark.tick()) && cuts.get(mark.tick()).tick() == mark.tick()) {
                throw new Refusal("tempo", "Two tempo marks stand in each other's way; move one of them.");
            }
            cuts.put(mark.tick(), mark);
            reached = mark.tick() + mark.overTicks();
            if (mark.overTicks() > 0) {
                cuts.put(reached, TempoMark.at(reached - 1, mark.tempo()));
            }
        }
        return cuts;
    }

    private static List<Stretch> stretches(List<TempoMark> sorted, TreeMap<Long, TempoMark> cuts, List<Hold> holds) {
        TreeMap<Long, Long> held = new TreeMap<>();
        for (Hold hold : holds) {
            if (held.put(hold.tick(), hold.millis() * 1_000_000L) != null) {
                throw new Refusal("hold", "Two holds stand at one place; keep one of them.");
            }
            insideNoRamp(cuts, hold);
            cuts.computeIfAbsent(hold.tick(), t -> cuts.floorEntry(t).getValue());
        }
        List<Stretch> stretches = new ArrayList<>();
        Tempo now = sorted.get(0).tempo();
        Fraction at = Fraction.ZERO;
        for (var cut : cuts.entrySet()) {
            TempoMark mark = cut.getValue();
            long tick = cut.getKey();
            if (!stretches.isEmpty()) {
                Stretch last = stretches.get(stretches.size() - 1);
                at = last.nanos.plus(last.nanosAfter(tick - last.tick));
            }
            boolean same = mark.tempo().nanosPerTick().equals(now.nanosPerTick());
            boolean ramp = mark.tick() == tick && mark.overTicks() > 0 && !same;
            Fraction after = at.plus(Fraction.of(held.getOrDefault(tick, 0L)));
            stretches.add(new Stretch(
                    tick,
                    after,
                    at,
                    ramp ? now : mark.tempo(),
                    mark.tempo(),
                    ramp ? mark.overTicks() : 0,
                    mark.tempo().nanosPerTick()));
            now = mark.tempo();
        }
        return List.copyOf(stretches);
    }

    private static void insideNoRamp(TreeMap<Long, TempoMark> cuts, Hold hold) {
        TempoMark mark = cuts.floorEntry(hold.tick()).getValue();
        if (hold.tick() > mark.tick() && hold.tick() < mark.tick() + mark.overTicks()) {
            throw new Refusal("hold", "A hold cannot stand inside a gradual change of tempo; put it at its end.");
        }
    }

    /**
     * A place at which the tempo changes, or time stands still.
     *
     * @param gradual whether it goes on changing from there to the next one
     * @param held whether a hold stands there
     */
    public record Change(long tick, boolean gradual, boolean held) {}

    /** All changes, the first at tick 0. */
    public List<Change> changes() {
        return stretches.stream()
                .map(s -> new Change(s.tick, s.ramp > 0, s.before.compareTo(s.nanos) < 0))
                .toList();
    }

    /**
     * When a place comes.
     *
     * @param tick 0 or above
     * @return ns since the start of the item, to the nearest
     */
    public long nanos(long tick) {
        Stretch stretch = stretches.get(indexAtTick(tick));
        if (tick == stretch.tick) {
            return stretch.before.rounded();
        }
        return stretch.ramp == 0
                ? stretch.nanos.roundedWith(tick - stretch.tick, stretch.nanosPerTick)
                : stretch.nanos.plus(stretch.nanosAfter(tick - stretch.tick)).rounded();
    }

    /**
     * Where a time is; during a hold, the place that is held.
     *
     * @param nanos since the start of the item, 0 or above
     * @return the nearest tick
     */
    public long tick(long nanos) {
        int low = 0;
        Fraction time = Fraction.of(nanos);
        for (int high = stretches.size() - 1; low < high; ) {
            int middle = (low + high + 1) / 2;
            if (stretches.get(middle).before.rounded() <= nanos) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        Stretch stretch = stretches.get(low);
        return time.compareTo(stretch.nanos) <= 0
                ? stretch.tick
                : stretch.tick + stretch.ticksAfter(time.minus(stretch.nanos));
    }

    /**
     * How long the beat that the tempo counts lasts at a place, as if no hold stood behind it.
     *
     * @param tick 0 or above
     * @return ns
     */
    public long beatNanos(long tick) {
        Stretch stretch = stretches.get(indexAtTick(tick));
        long into = tick - stretch.tick;
        return stretch.nanosAfter(into + stretch.to.unit().ticks())
                .minus(stretch.nanosAfter(into))
                .rounded();
    }

    /** How many ticks the beat has that the tempo counts at a place. @param tick 0 or above */
    public int beatTicks(long tick) {
        return stretches.get(indexAtTick(tick)).to.unit().ticks();
    }

    private int indexAtTick(long tick) {
        int low = 0;
        for (int high = stretches.size() - 1; low < high; ) {
            int middle = (low + high + 1) / 2;
            if (stretches.get(middle).tick <= tick) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        return low;
    }
}
