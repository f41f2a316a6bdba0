package underbaton.core.perform;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.CountDownLatch;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.cue.Start;
import underbaton.core.engine.Engine;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Device;
import underbaton.core.score.Score;

/** However late the performer wakes and whatever is ordered meanwhile: what was to leave leaves once, and is told once. */
class NothingIsLostTest {

    private static final long MILLI = 1_000_000L;
    /** At 120 a beat lasts half a second (common practice), so cue n of the song comes n half seconds after it began. */
    private static final long BEAT = 500 * MILLI;

    private static final int CUES = 400;

    private final HandClock clock = new HandClock();
    private final HandOutbox outbox = new HandOutbox(clock);
    private final List<String> told = new ArrayList<>();
    private final Show show = song();
    private final Performer performer =
            new Performer(clock, Planner.plan(show), outbox, s -> s.happenings().forEach(h -> {
                if (h instanceof Happening.Fired fired) {
                    told.add(fired.cue().label());
                }
            }));

    /** A song with a look on each beat, from the second on. */
    private static Show song() {
        Show song = Shows.small();
        Device lights = song.devices().get(0);
        Item item = song.items().get(0);
        song = song.withItem(item.withScore(Optional.of(Score.of("1 quarter = 120\n101 end"))), 0);
        List<String> looks = List.of("Amber", "Blue", "Dark");
        for (int i = 1; i < CUES; i++) {
            Cue cue = new Cue(
                    0,
                    CueNumber.of("" + (1000 + i)),
                    Start.of("at " + (i / 4 + 1) + ":" + (i % 4 + 1)),
                    "",
                    List.of(Call.of(lights, looks.get(i % 3))),
                    0);
            song = song.withCue(item.id(), cue);
        }
        return song;
    }

    private void order(Order order) {
        performer.order(order);
    }

    private void begin() {
        order(new Order.Play(show.items().get(0).id(), 1));
        performer.work();
    }

    private List<String> labels() {
        return IntStream.range(1, CUES).mapToObj(i -> "" + (1000 + i)).toList();
    }

    private List<String> sent() {
        return outbox.messages().stream()
                .map(m -> m.cause().words())
                .filter(w -> w.startsWith("cue 1"))
                .map(w -> w.substring(4))
                .filter(w -> w.length() == 4)
                .toList();
    }

    /** The performer slept over the beat; the order finds what is due not yet handed over. */
    @Test
    void an_order_that_comes_before_a_late_waking_loses_nothing() {
        begin();
        for (int i = 1; i < CUES; i++) {
            clock.forward(BEAT + 3 * MILLI);
            order(new Order.Back());
            performer.work();
            assertThat(performer.unaccounted()).isZero();
            clock.forward(-3 * MILLI);
        }
        assertThat(sent()).containsExactlyElementsOf(labels());
        assertThat(told).containsExactlyElementsOf(labels());
    }

    /** Seeded lateness, seeded orders that send nothing of their own. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void every_cue_leaves_once_however_late_the_performer_wakes(long seed) {
        Random random = new Random(seed);
        begin();
        long end = clock.nanos() + CUES * BEAT;
        while (clock.nanos() < end) {
            long next = performer.nanosToNext();
            long nap = random.nextInt(4) == 0 ? random.nextInt(40) * MILLI : Math.min(next, 100 * MILLI);
            clock.forward(Math.max(nap, 1) + random.nextInt(9) * MILLI);
            for (int i = random.nextInt(3); i > 0; i--) {
                order(quiet(random));
                clock.forward(random.nextInt(3) * MILLI);
            }
            if (random.nextBoolean()) {
                performer.work();
            } else {
                performer.orderAtOnce("", quiet(random));
            }
            assertThat(performer.unaccounted()).isZero();
        }
        clock.forward(BEAT);
        performer.work();
        performer.work();
        assertThat(sent()).containsExactlyElementsOf(labels());
        assertThat(told).containsExactlyElementsOf(labels());
    }

    private static Order quiet(Random random) {
        return switch (random.nextInt(4)) {
            case 0 -> new Order.Back();
            case 1 -> new Order.Next();
            case 2 -> new Order.Listen(random.nextBoolean());
            default -> new Order.StandsAt(2, "", 1);
        };
    }

    /** Handed ahead, then undone by an order that came before its moment: neither sent nor told. */
    @Test
    void what_an_order_undoes_is_told_to_nobody() {
        begin();
        clock.forward(BEAT - 4 * MILLI);
        performer.work();
        assertThat(told).as("it is still to come").isEmpty();
        clock.forward(2 * MILLI);
        order(new Order.StopAll());
        performer.work();
        clock.forward(10 * BEAT);
        performer.work();
        assertThat(told).isEmpty();
        assertThat(sent()).isEmpty();
    }

    /** A plan that cannot be asked: the order faults, and what was handed ahead leaves nevertheless. */
    @Test
    void a_fault_in_an_order_puts_back_what_was_taken_back_for_it() {
        begin();
        clock.forward(BEAT - 2 * MILLI);
        performer.work();
        order(new Order.Adopt(null));
        assertThatThrownBy(performer::work).isInstanceOf(NullPointerException.class);
        assertThat(performer.unaccounted()).isZero();
        clock.forward(BEAT);
        performer.work();
        clock.forward(10 * MILLI);
        performer.work();
        assertThat(sent()).containsExactly("1001", "1002");
        assertThat(told).containsExactly("1001", "1002");
    }

    /** An order that never ends: it is told and given up, what was handed ahead leaves, and the next GO is carried out. */
    @Test
    @Timeout(30)
    void an_order_that_takes_longer_than_a_second_is_stepped_over() throws InterruptedException {
        CountDownLatch stuck = new CountDownLatch(1);
        CountDownLatch freed = new CountDownLatch(1);
        Performer watched = new Performer(clock, performer.state(), outbox, s -> {}, (state, event) -> {
            if (event.order() instanceof Order.Hush) {
                stuck.countDown();
                try {
                    freed.await();
                } catch (InterruptedException ended) {
                    Thread.currentThread().interrupt();
                }
            }
            return Engine.step(state, event);
        });
        watched.order(new Order.Play(show.items().get(0).id(), 1));
        watched.work();
        clock.forward(BEAT - 2 * MILLI);
        watched.work();
        Thread wire = new Thread(() -> watched.orderAtOnce("pedal", new Order.Hush()));
        wire.start();
        stuck.await();
        assertThat(watched.watch()).as("not yet").isEmpty();
        clock.forward(1_100 * MILLI);
        assertThat(watched.watch())
                .hasValueSatisfying(words -> assertThat(words).contains("longer than a second"));
        watched.order(new Order.Next());
        watched.work();
        clock.forward(BEAT);
        watched.work();
        assertThat(sent()).startsWith("1001", "1002", "1003");
        assertThat(watched.unaccounted()).isZero();
        freed.countDown();
        wire.join();
        PlaybackState after = watched.state();
        watched.work();
        assertThat(watched.state().brought()).as("nothing comes of it any more").isEqualTo(after.brought());
        assertThat(watched.unaccounted()).isZero();
    }

    /** What is due when a performer takes over a show leaves too. */
    @Test
    void what_is_due_at_the_very_beginning_is_handed_over() {
        begin();
        Performer second = new Performer(clock, performer.state(), outbox, s -> {});
        assertThat(second.unaccounted()).isZero();
        assertThat(outbox.messages()).extracting(ScheduledMessage::message).doesNotContain(new NoteOn(0, 99, 1));
    }
}
