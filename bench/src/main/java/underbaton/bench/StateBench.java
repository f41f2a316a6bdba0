package underbaton.bench;

import java.util.Arrays;
import java.util.Random;
import underbaton.core.engine.DryRun;
import underbaton.core.engine.PlaybackState;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.Planner;

/** What the book says of every machine at places of a large show, and what it takes to get there from another one. */
final class StateBench {

    private static final int PLACES = 400;
    private static final long LONGEST_NANOS = 140_000_000_000L;

    private StateBench() {}

    static void run() {
        System.out.println("The state at " + PLACES + " places by chance, and the catch-up between two of them, ms");
        System.out.printf(
                "%8s %10s %10s %10s %10s %12s %12s%n", "items", "messages", "p50", "p99", "max", "catch-up p50", "p99");
        for (int items : new int[] {50, 100, 150}) {
            measure(items);
        }
    }

    private static void measure(int items) {
        Plan plan = Planner.plan(PlanBench.show(items));
        DryRun run = DryRun.of(plan);
        long messages = run.messages().count();
        Random random = new Random(items);
        double[] state = new double[PLACES];
        double[] way = new double[PLACES];
        PlaybackState last = run.before(0);
        for (int i = -PLACES; i < PLACES; i++) {
            PlannedItem item = plan.items().get(random.nextInt(items));
            long nanos = (long) (random.nextDouble() * LONGEST_NANOS);
            long from = System.nanoTime();
            PlaybackState there = run.before(item.item().id(), nanos);
            long between = System.nanoTime();
            last.correctionsTo(there);
            long to = System.nanoTime();
            last = there;
            if (i >= 0) {
                state[i] = (between - from) / 1e6;
                way[i] = (to - between) / 1e6;
            }
        }
        Arrays.sort(state);
        Arrays.sort(way);
        System.out.printf(
                "%8d %10d %10.2f %10.2f %10.2f %12.2f %12.2f%n",
                items,
                messages,
                state[PLACES / 2],
                state[PLACES * 99 / 100],
                state[PLACES - 1],
                way[PLACES / 2],
                way[PLACES * 99 / 100]);
    }
}
