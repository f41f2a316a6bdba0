package underbaton.core.perform;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.engine.Order;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Device;
import underbaton.core.traffic.Traffic;

/** What is played is carried out, and sent, on the thread that brings it: unless somebody else is at it, or would have to be waited for. */
class AtOnceTest {

    private final HandClock clock = new HandClock();
    private final Loops loops = new Loops(Thread::new);
    private final Scribe scribe = new Scribe(new Traffic(100), loops);
    private final Show show = Shows.small();
    private final Device device = show.devices().get(0);
    private final LinkedBlockingQueue<String> left = new LinkedBlockingQueue<>();

    @AfterEach
    void leave() {
        scribe.close();
    }

    // ---- a lane

    private Outlet outlet(boolean prompt, CountDownLatch before) {
        return new Outlet() {
            @Override
            public Outcome send(Message message) {
                try {
                    before.await(20, TimeUnit.SECONDS);
                } catch (InterruptedException ended) {
                    Thread.currentThread().interrupt();
                }
                left.add(((NoteOn) message).note() + " by "
                        + (Thread.currentThread().getName().startsWith("lane") ? "its lane" : "the player"));
                return new Sent(((MidiMessage) message).encode());
            }

            @Override
            public boolean isPrompt() {
                return prompt;
            }
        };
    }

    private ScheduledMessage note(int note, long due) {
        return ScheduledMessage.at(due, device.id(), new NoteOn(0, note, 1), Cause.outside("played", due));
    }

    private List<String> left(int count) throws InterruptedException {
        List<String> all = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            all.add(left.poll(20, TimeUnit.SECONDS));
        }
        return all;
    }

    @Test
    void a_prompt_outlet_is_given_what_is_due_by_the_player_himself() throws InterruptedException {
        Lane lane = new Lane(1, device, outlet(true, new CountDownLatch(0)), clock, scribe, loops);
        lane.sendAtOnce(note(60, clock.nanos()));
        assertThat(left(1)).containsExactly("60 by the player");
        lane.close();
        lane.sendAtOnce(note(61, clock.nanos()));
        assertThat(left.poll(100, TimeUnit.MILLISECONDS))
                .as("after its end nothing leaves")
                .isNull();
    }

    @Test
    void one_that_may_wait_is_given_it_by_its_lane() throws InterruptedException {
        Lane lane = new Lane(1, device, outlet(false, new CountDownLatch(0)), clock, scribe, loops);
        lane.sendAtOnce(note(60, clock.nanos()));
        assertThat(left(1)).containsExactly("60 by its lane");
        lane.close();
    }

    @Test
    void what_is_under_way_is_not_overtaken_and_nobody_waits_for_it() throws InterruptedException {
        CountDownLatch slow = new CountDownLatch(1);
        Lane lane = new Lane(1, device, outlet(true, slow), clock, scribe, loops);
        lane.send(note(60, clock.nanos()));
        for (int note = 61; note < 64; note++) {
            lane.sendAtOnce(note(note, clock.nanos()));
        }
        // The player has come here although the lane is still at the first.
        slow.countDown();
        List<String> all = left(4);
        assertThat(all.stream().map(w -> w.substring(0, 2))).containsExactly("60", "61", "62", "63");
        lane.close();
    }

    // ---- the performer

    private final HandOutbox outbox = new HandOutbox(clock);

    @Test
    void an_order_at_once_is_done_when_the_call_comes_back() {
        Performer performer = new Performer(clock, Planner.plan(show), outbox, s -> {});
        performer.orderAtOnce("pedal", new Order.Go());
        assertThat(outbox.messages()).hasSize(1);
        assertThat(performer.state().standbyCue().orElseThrow().label()).isEqualTo("2");
    }

    @Test
    void orders_that_wait_are_done_before_it() {
        Performer performer = new Performer(clock, Planner.plan(show), outbox, s -> {});
        performer.order(new Order.StandBy(show.items().get(1).cues().get(0).id()));
        performer.orderAtOnce("pedal", new Order.Go());
        assertThat(performer.state().last().orElseThrow().cue().label()).isEqualTo("10");
    }

    @Test
    void a_fault_is_told_to_the_performers_thread_and_not_to_the_player() {
        AtomicReference<RuntimeException> broken = new AtomicReference<>(new IllegalStateException("broken"));
        Performer performer = new Performer(clock, Planner.plan(show), outbox, s -> {
            RuntimeException fault = broken.getAndSet(null);
            if (fault != null) {
                throw fault;
            }
        });
        performer.orderAtOnce("pedal", new Order.Go());
        assertThatThrownBy(performer::work).hasMessage("broken");
        performer.work();
        performer.orderAtOnce("pedal", new Order.Go());
        assertThat(performer.state().last().orElseThrow().cue().label()).isEqualTo("2");
    }

    @Test
    void an_order_at_once_out_of_the_work_itself_waits_its_turn() {
        AtomicReference<Performer> performer = new AtomicReference<>();
        List<Integer> depths = new ArrayList<>();
        int[] depth = {0};
        performer.set(new Performer(clock, Planner.plan(show), outbox, s -> {
            depths.add(++depth[0]);
            if (depths.size() == 1) {
                performer.get().orderAtOnce("echo", new Order.Next());
            }
            depth[0]--;
        }));
        performer.get().orderAtOnce("pedal", new Order.Go());
        performer.get().work();
        assertThat(depths).isNotEmpty().containsOnly(1);
    }

    /** What follows by itself comes in time though the order was carried out beside the performer's thread, which slept. */
    @Test
    void the_performers_thread_wakes_for_what_the_order_has_made_due() throws InterruptedException {
        Show follows = Shows.cue(Shows.cue(show, "12", "by hand", "Amber"), "13", "after 0.05 s", "Blue");
        Clock real = new Clock() {
            @Override
            public long nanos() {
                return System.nanoTime();
            }

            @Override
            public long epochMicros() {
                return System.nanoTime() / 1000;
            }
        };
        Semaphore blue = new Semaphore(0);
        Outbox counting = new Outbox() {
            @Override
            public void send(ScheduledMessage message) {
                if (message.message().equals(new NoteOn(0, 2, 127))) {
                    blue.release();
                }
            }

            @Override
            public Withdrawn withdraw(long afterNanos) {
                return Withdrawn.NOTHING;
            }
        };
        Performer performer = new Performer(real, Planner.plan(follows), counting, s -> {});
        long began = System.nanoTime();
        try (PerformerThread thread = new PerformerThread(performer, loops)) {
            int twelve = follows.cueNumbered(CueNumber.of("12")).orElseThrow().id();
            for (int i = 0; i < 20; i++) {
                performer.orderAtOnce("pedal", new Order.StandBy(twelve));
                performer.orderAtOnce("pedal", new Order.Go());
                assertThat(blue.tryAcquire(30, TimeUnit.SECONDS)).isTrue();
            }
        }
        // Asleep, it would have looked once a second.
        assertThat(System.nanoTime() - began).isLessThan(15_000_000_000L);
    }
}
