package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import underbaton.core.midi.Message;
import underbaton.core.perform.HandClock;
import underbaton.core.perform.HandOutbox;
import underbaton.core.perform.Performer;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.Planner;

/**
 * The dry run and a performer that is given the same GOs send the same, message by message and to the nanosecond, however
 * the performer is woken.
 */
class PlanIsPerformanceTest {

    private static final int SHOWS = 200;

    static LongStream seeds() {
        return LongStream.range(0, Long.getLong("baton.seeds", SHOWS));
    }

    private record Leaves(long nanos, int deviceId, Message message, String cause) {}

    @ParameterizedTest
    @MethodSource("seeds")
    void theFoldAndThePerformerSendTheSame(long seed) {
        Plan plan = Planner.plan(PlayableShows.show(seed, false));
        List<Leaves> planned = new ArrayList<>();
        List<Long> gos = new ArrayList<>();
        long end = play(plan, planned, gos);

        HandClock clock = new HandClock();
        long began = clock.nanos();
        HandOutbox outbox = new HandOutbox(clock);
        PlaybackState first = PlaybackState.of(plan, began).straight();
        Performer performer = new Performer(clock, first, outbox, s -> {});
        Random random = new Random(seed);
        for (long go : gos) {
            pass(performer, clock, began + go, random);
            performer.order(new Order.Go());
            performer.work();
        }
        pass(performer, clock, began + end, random);

        List<Leaves> performed = outbox.messages().stream()
                .map(m -> new Leaves(
                        m.dueNanos() - began,
                        m.deviceId(),
                        m.message(),
                        m.cause().words()))
                .toList();
        planned.sort(Comparator.comparingLong(Leaves::nanos));
        assertThat(performed).hasSameSizeAs(planned);
        for (int device : plan.devices().stream().mapToInt(d -> d.id()).toArray()) {
            assertThat(performed)
                    .filteredOn(l -> l.deviceId == device)
                    .containsExactlyElementsOf(
                            planned.stream().filter(l -> l.deviceId == device).toList());
        }
    }

    /** All items of the dry run behind one another, and when GO is pressed in it. */
    private static long play(Plan plan, List<Leaves> planned, List<Long> gos) {
        long began = 0;
        Carried carried = Carried.first(plan);
        for (PlannedItem item : plan.items()) {
            StraightPlay play = new StraightPlay(plan, item, carried);
            int before = play.state().standby();
            for (var step = play.next(); step.isPresent(); step = play.next()) {
                long from = began;
                step.get()
                        .messages()
                        .forEach(m -> planned.add(new Leaves(
                                from + m.dueNanos(),
                                m.deviceId(),
                                m.message(),
                                m.cause().words())));
                if (step.get().next().standby() != before) {
                    gos.add(from + step.get().next().nowNanos());
                    before = step.get().next().standby();
                }
            }
            long lasts = play.endNanos();
            carried = Carried.of(
                    Engine.step(play.state(), Event.pass(lasts)).next().shifted(-lasts));
            began += lasts;
        }
        return began;
    }

    /** Lets the time pass; the performer is woken when it asked to be, now and then a little early or late. */
    private static void pass(Performer performer, HandClock clock, long until, Random random) {
        while (clock.nanos() < until) {
            performer.work();
            long next = performer.nanosToNext();
            long sleeps = random.nextInt(4) == 0 ? random.nextInt(9_000_000) : Math.max(1, next);
            clock.forward(Math.min(sleeps, until - clock.nanos()));
        }
    }
}
