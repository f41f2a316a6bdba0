package underbaton.core.score;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import underbaton.core.rig.Refusal;

/** Turns bars and beats into ticks and back, over changes of meter and after a pick-up. Immutable. */
public final class BarMap {

    private final int pickUpTicks;
    private final List<Part> parts;

    /**
     * A meter from a bar on.
     *
     * @param bar 1 for the first whole bar
     */
    public record MeterMark(int bar, Meter meter) {}

    private record Part(int bar, long tick, Meter meter) {}

    /**
     * @param pickUpTicks length of the pick-up before bar 1, shorter than that bar; 0 for none
     * @param marks the first stands at bar 1
     * @throws Refusal when there is no meter at bar 1, or two stand at one bar
     */
    public BarMap(int pickUpTicks, List<MeterMark> marks) {
        this.pickUpTicks = pickUpTicks;
        List<MeterMark> sorted =
                marks.stream().sorted(Comparator.comparingInt(MeterMark::bar)).toList();
        if (sorted.isEmpty() || sorted.get(0).bar() != 1) {
            throw new Refusal("meter", "The item needs a meter at bar 1.");
        }
        if (pickUpTicks < 0 || pickUpTicks >= sorted.get(0).meter().barTicks()) {
            throw new Refusal("pick-up", "A pick-up is shorter than the first bar.");
        }
        List<Part> found = new ArrayList<>();
        long tick = pickUpTicks;
        for (MeterMark mark : sorted) {
            if (!found.isEmpty()) {
                Part last = found.get(found.size() - 1);
                if (last.bar == mark.bar()) {
                    throw new Refusal("meter", "Two meters stand at bar " + mark.bar() + "; keep one of them.");
                }
                tick = last.tick + (long) (mark.bar() - last.bar) * last.meter.barTicks();
            }
            found.add(new Part(mark.bar(), tick, mark.meter()));
        }
        parts = List.copyOf(found);
    }

    /** The meter of a bar. */
    public Meter meter(int bar) {
        return partOfBar(bar).meter;
    }

    /** Where a bar begins; the pick-up (bar 0) at tick 0. */
    public long tickOfBar(int bar) {
        Part part = partOfBar(bar);
        return bar < 1 ? 0 : part.tick + (long) (bar - part.bar) * part.meter.barTicks();
    }

    /**
     * @throws Refusal when the bar has no such beat, or the beat no such tick
     */
    public long tick(Position p) {
        Meter meter = meter(p.bar());
        long length = p.bar() < 1 ? pickUpTicks : meter.barTicks();
        // The beats of a pick-up are the last of a whole bar: they are counted towards bar 1.
        long missing = p.bar() < 1 ? meter.barTicks() - pickUpTicks : 0;
        long within = (long) (p.beat() - 1) * meter.beatTicks() + p.tick() - missing;
        boolean known = p.bar() >= 0 && p.beat() >= 1 && p.tick() >= 0 && p.tick() < meter.beatTicks();
        if (!known || within < 0 || within >= length) {
            throw new Refusal("place", "There is no " + p + "; bar " + p.bar() + " has " + meter + ".");
        }
        return tickOfBar(p.bar()) + within;
    }

    /** @param tick 0 or above */
    public Position position(long tick) {
        Part part = parts.get(0);
        for (Part candidate : parts) {
            if (candidate.tick <= tick) {
                part = candidate;
            }
        }
        boolean pickUp = tick < pickUpTicks;
        long within = pickUp ? tick + part.meter.barTicks() - pickUpTicks : tick - part.tick;
        int bar = pickUp ? 0 : (int) (part.bar + within / part.meter.barTicks());
        int inBar = (int) (within % part.meter.barTicks());
        return new Position(bar, 1 + inBar / part.meter.beatTicks(), inBar % part.meter.beatTicks());
    }

    private Part partOfBar(int bar) {
        Part part = parts.get(0);
        for (Part candidate : parts) {
            if (candidate.bar <= bar) {
                part = candidate;
            }
        }
        return part;
    }
}
