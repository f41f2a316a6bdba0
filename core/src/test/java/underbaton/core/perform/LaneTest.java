package underbaton.core.perform;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Show;
import underbaton.core.cue.Shows;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.StepList;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;

class LaneTest {

    private final HandClock clock = new HandClock();
    private final Traffic traffic = new Traffic(5000);
    private final Device device = Shows.small().devices().get(0);
    private final LinkedBlockingQueue<Message> arrived = new LinkedBlockingQueue<>();

    private final Loops loops = new Loops(Thread::new);
    private final Scribe scribe = new Scribe(traffic, loops);

    @AfterEach
    void leave() {
        scribe.close();
    }

    private Lane lane(Outlet outlet) {
        return new Lane(1, device, outlet, clock, scribe, loops);
    }

    private ScheduledMessage sending(int note) {
        return message(new NoteOn(0, note, 127), clock.nanos());
    }

    private ScheduledMessage message(Message message, long due) {
        return ScheduledMessage.at(due, device.id(), message, Cause.outside("cue 1", due));
    }

    @Test
    void aDeadDeviceDelaysNobodyElse() throws InterruptedException {
        CountDownLatch dead = new CountDownLatch(1);
        Lane stuck = lane(m -> {
            try {
                dead.await();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            return new Outlet.NotSent("dead");
        });
        Lane well = lane(m -> {
            arrived.add(m);
            return new Outlet.Sent(((MidiMessage) m).encode());
        });
        CountDownLatch written = new CountDownLatch(1);
        traffic.watch(written::countDown);
        for (int i = 0; i < 2000; i++) {
            stuck.send(sending(1));
        }
        well.send(sending(2));
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 2, 127));
        assertThat(written.await(30, TimeUnit.SECONDS)).isTrue();
        assertThat(traffic.after(0, 5000)).anyMatch(e -> e.trouble().contains("waiting already"));
        stuck.close();
        well.close();
    }

    @Test
    void lanesThatShareATimekeeperWaitNotForOneAnothersStepsNorEnds() throws InterruptedException {
        Timekeeper time = new Timekeeper("lanes", clock, loops);
        Outlet outlet = m -> {
            arrived.add(m);
            return new Outlet.Sent(((MidiMessage) m).encode());
        };
        Device words = pages(200);
        Lane slow = new Lane(1, words, outlet, clock, scribe, time);
        Lane other = new Lane(1, device, outlet, clock, scribe, time);
        Lane gone = new Lane(1, device, outlet, clock, scribe, time);
        slow.send(sending(60));
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 60, 127));
        isAtRest(slow);
        long now = clock.nanos();
        slow.send(sending(60));
        other.send(message(new NoteOn(0, 2, 127), now + 20_000_000));
        other.send(message(new NoteOn(0, 1, 127), now + 10_000_000));
        gone.send(message(new NoteOn(0, 3, 127), now + 10_000_000));
        gone.close();
        clock.forward(20_000_000);
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 1, 127));
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 2, 127));
        clock.forward(180_000_000);
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 60, 127));
        slow.close();
        other.close();
        time.close();
    }

    @Test
    void whatLeftIsLoggedWithItsBytesItsMeaningAndItsCause() throws InterruptedException {
        CountDownLatch logged = new CountDownLatch(1);
        traffic.watch(logged::countDown);
        lane(m -> new Outlet.Sent(((MidiMessage) m).encode())).send(sending(28));
        assertThat(logged.await(30, TimeUnit.SECONDS)).isTrue();
        Entry entry = traffic.after(0, 1).get(0);
        assertThat(entry.bytes().hex()).isEqualTo("90 1C 7F");
        assertThat(entry.meaning()).isEqualTo("note E0, channel 1");
        assertThat(entry.cause()).isEqualTo("cue 1");
        assertThat(entry.trouble()).isEmpty();
    }

    @Test
    void clocksThatLeftAreToldByTheirNumber() throws InterruptedException {
        Lane lane = lane(m -> {
            arrived.add(m);
            return new Outlet.Sent(((MidiMessage) m).encode());
        });
        for (int i = 0; i < 24; i++) {
            lane.send(message(RealTime.CLOCK, clock.nanos()));
        }
        lane.send(message(RealTime.STOP, clock.nanos()));
        for (int i = 0; i < 25; i++) {
            assertThat(arrived.poll(30, TimeUnit.SECONDS)).isNotNull();
        }
        lane.close();
        scribe.close();
        assertThat(traffic.after(0, 100))
                .extracting(Entry::meaning)
                .satisfiesExactly(clocks -> assertThat(clocks).startsWith("24 clocks"), stop -> assertThat(stop)
                        .isEqualTo("stop"));
    }

    @Test
    void aMachineThatTakesAStepEachEightyMillisecondsGetsNoneSooner() throws InterruptedException {
        Lane lane = words(80);
        lane.send(sending(60));
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 60, 127));
        isAtRest(lane);
        clock.forward(30_000_000);
        lane.send(sending(60));
        lane.send(sending(58));
        lane.sendAtOnce(sending(60));
        clock.forward(49_999_999);
        assertThat(arrived.poll(200, TimeUnit.MILLISECONDS))
                .as("80 ms after the first, though it was told late, and nothing overtakes it")
                .isNull();
        clock.forward(1);
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 60, 127));
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 58, 127));
        assertThat(arrived.poll(100, TimeUnit.MILLISECONDS)).isNull();
        clock.forward(80_000_000);
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 60, 127));
        lane.close();
    }

    @Test
    void whatElseAMachineIsToldDoesNotWaitForALongStep() throws InterruptedException {
        Lane lane = words(2000);
        lane.send(sending(60));
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 60, 127));
        isAtRest(lane);
        lane.send(sending(60));
        lane.send(sending(58));
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 58, 127));
        clock.forward(2_000_000_000);
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 60, 127));
        lane.close();
    }

    /** A machine that takes a step each so many ms. */
    private static Device pages(int gapMs) {
        Show show = Shows.device(Show.empty(1, "Words"), "Words", Department.WORDS, 0);
        show = Shows.phrase(show, "Next", "note 60", Effect.of("steps page by +1"));
        return show.devices().get(0).withStepLists(List.of(new StepList("Page", 40, gapMs)));
    }

    private Lane words(int gapMs) {
        return new Lane(
                1,
                pages(gapMs),
                m -> {
                    arrived.add(m);
                    return new Outlet.Sent(((MidiMessage) m).encode());
                },
                clock,
                scribe,
                loops);
    }

    /** What has arrived has left altogether only a moment later. */
    private static void isAtRest(Lane lane) throws InterruptedException {
        for (int i = 0; i < 3000 && !lane.isIdle(); i++) {
            Thread.sleep(1);
        }
    }

    @Test
    void whatIsDueLaterWaitsAndCanBeTakenBackUntilItHasLeft() throws InterruptedException {
        Lane lane = lane(m -> {
            arrived.add(m);
            return new Outlet.Sent(((MidiMessage) m).encode());
        });
        long now = clock.nanos();
        lane.send(message(new NoteOn(0, 29, 127), now + 100_000_000L));
        lane.send(message(new NoteOn(0, 30, 127), now + 200_000_000L));
        lane.send(sending(28));
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 28, 127));
        Outbox.Withdrawn withdrawn = lane.withdraw(now + 100_000_000L);
        assertThat(withdrawn.leftNanos()).isEqualTo(now);
        assertThat(withdrawn.messages()).extracting(ScheduledMessage::message).containsExactly(new NoteOn(0, 30, 127));
        clock.forward(300_000_000L);
        lane.send(sending(31));
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 29, 127));
        assertThat(arrived.poll(30, TimeUnit.SECONDS)).isEqualTo(new NoteOn(0, 31, 127));
        lane.close();
    }

    /** A machine that hangs: 3,000 messages wait for it, of which a fader's ride gives way first, and no note is left sounding. */
    @Test
    void whereTooMuchWaitsTheLeastImportantIsDroppedAndLoggedAndNeverTheEndOfANote() throws InterruptedException {
        CountDownLatch hangs = new CountDownLatch(1);
        Lane lane = lane(m -> {
            try {
                hangs.await(30, TimeUnit.SECONDS);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            arrived.add(m);
            return new Outlet.Sent(((MidiMessage) m).encode());
        });
        CountDownLatch logged = new CountDownLatch(3000);
        traffic.watch(logged::countDown);
        for (int i = 0; i < 1000; i++) {
            lane.send(message(new ControlChange(0, 7, i % 128), clock.nanos()));
            lane.send(message(new NoteOn(0, i % 128, 127), clock.nanos()));
            lane.send(message(new NoteOff(0, i % 128, 0), clock.nanos()));
        }
        hangs.countDown();
        assertThat(logged.await(30, TimeUnit.SECONDS)).isTrue();
        lane.close();
        assertThat(traffic.after(0, 5000)).as("each has its line").hasSize(3000);
        List<Message> all = List.copyOf(arrived);
        assertThat(all).filteredOn(NoteOff.class::isInstance).hasSize(1000);
        List<Message> rides =
                all.stream().filter(ControlChange.class::isInstance).toList();
        assertThat(rides.get(rides.size() - 1))
                .as("where the fader came to")
                .isEqualTo(new ControlChange(0, 7, 999 % 128));
        assertThat(traffic.after(0, 5000).stream().filter(e -> !e.trouble().isEmpty()))
                .hasSize(3000 - all.size());
    }

    @Test
    void whatComesToALaneThatWasPutAwayIsLogged() {
        Lane lane = lane(m -> new Outlet.Sent(((MidiMessage) m).encode()));
        lane.close();
        lane.send(sending(1));
        scribe.close();
        assertThat(traffic.after(0, 10)).singleElement().satisfies(e -> assertThat(e.trouble())
                .contains("put away"));
    }

    /** When a show is put away, what sounds ends and what was to come is told, and nothing of it leaves later. */
    @Test
    void closingEndsWhatSoundsAndLogsWhatItDrops() throws InterruptedException {
        Lane lane = lane(m -> {
            arrived.add(m);
            return new Outlet.Sent(((MidiMessage) m).encode());
        });
        long later = clock.nanos() + 300_000_000L;
        lane.send(message(new NoteOff(0, 5, 0), later));
        lane.send(message(new NoteOn(0, 6, 127), later));
        lane.close();
        assertThat(arrived).containsExactly(new NoteOff(0, 5, 0));
        scribe.close();
        assertThat(traffic.after(0, 10))
                .filteredOn(e -> !e.trouble().isEmpty())
                .singleElement()
                .satisfies(e -> assertThat(e.trouble()).contains("put away"));
    }
}
