package underbaton.bench;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MetaMessage;
import javax.sound.midi.MidiEvent;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.Sequence;
import javax.sound.midi.Sequencer;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Track;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.engine.Order;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.loop.Loops;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.TimeCode;
import underbaton.core.perform.Lane;
import underbaton.core.perform.Outbox;
import underbaton.core.perform.Outlet;
import underbaton.core.perform.Performer;
import underbaton.core.perform.PerformerThread;
import underbaton.core.perform.Scribe;
import underbaton.core.perform.Timekeeper;
import underbaton.core.plan.Plan;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.InStep;
import underbaton.core.rig.Numbering;
import underbaton.core.score.Score;
import underbaton.core.traffic.Traffic;

/** How late the clocks of a song leave: ours through performer and lane, and the JDK's sequencer with the same clocks in a track. */
final class ClockBench {

    private static final int QUARTERS = 24;
    private static final int CLOCKS = QUARTERS * 24;
    private static final long CLOCK_NANOS = 20_000_000;
    private static final int QUARTER_MICROS = 480_000;
    private static final int TEMPO = 0x51;

    private static final Loops LOOPS = new Loops(Thread::new);

    private final Show show = song();
    private final Plan plan = Planner.plan(show);

    private ClockBench() {}

    static void run() throws IOException, InterruptedException {
        ClockBench bench = new ClockBench();
        System.out.printf("%,d clocks at 125 to a machine inside the process; how late each left, ms%n", CLOCKS);
        SideBySide.compare(bench::ours, ClockBench::jdk);
    }

    /** When clocks came, one after the other. */
    private static final class Heard {
        private final long[] at = new long[CLOCKS];
        private volatile int count;

        synchronized void clock() {
            if (count < CLOCKS) {
                at[count] = System.nanoTime();
                count++;
            }
        }

        void awaitAll() throws InterruptedException {
            while (count < CLOCKS) {
                Thread.sleep(50);
            }
        }

        long[] late() {
            long[] late = new long[CLOCKS];
            Arrays.setAll(late, i -> at[i] - i * CLOCK_NANOS);
            return SideBySide.sinceEarliest(late);
        }
    }

    private long[] ours() throws InterruptedException {
        Heard heard = new Heard();
        Scribe scribe = new Scribe(new Traffic(20_000), LOOPS);
        Timekeeper time = new Timekeeper("lanes", SideBySide.CLOCK, LOOPS);
        Outlet outlet = message -> {
            if (message == RealTime.CLOCK) {
                heard.clock();
            }
            return new Outlet.Sent(((MidiMessage) message).encode());
        };
        Lane lane = new Lane(1, show.devices().get(0), outlet, SideBySide.CLOCK, scribe, time);
        Outbox outbox = new Outbox() {
            @Override
            public void send(ScheduledMessage message) {
                lane.send(message);
            }

            @Override
            public Withdrawn withdraw(long afterNanos) {
                // Nobody gives an order after the first.
                return Withdrawn.NOTHING;
            }
        };
        Performer performer = new Performer(SideBySide.CLOCK, plan, outbox, s -> {});
        try (PerformerThread thread = new PerformerThread(performer, LOOPS)) {
            performer.order(new Order.Play(show.items().get(0).id(), 0));
            heard.awaitAll();
        } finally {
            lane.close();
            time.close();
            scribe.close();
        }
        return heard.late();
    }

    private static long[] jdk() throws InterruptedException {
        Heard heard = new Heard();
        try (Sequencer sequencer = MidiSystem.getSequencer(false)) {
            sequencer.open();
            Sequence sequence = new Sequence(Sequence.PPQ, 24);
            Track track = sequence.createTrack();
            byte[] tempo = {(byte) (QUARTER_MICROS >> 16), (byte) (QUARTER_MICROS >> 8), (byte) QUARTER_MICROS};
            track.add(new MidiEvent(new MetaMessage(TEMPO, tempo, tempo.length), 0));
            // A little later, so that starting is no part of it.
            for (int i = 0; i < CLOCKS; i++) {
                track.add(new MidiEvent(new ShortMessage(ShortMessage.TIMING_CLOCK), i + 24L));
            }
            sequencer.setSequence(sequence);
            sequencer.getTransmitter().setReceiver(new Receiver() {
                @Override
                public void send(javax.sound.midi.MidiMessage message, long timeStamp) {
                    if (message.getStatus() == ShortMessage.TIMING_CLOCK) {
                        heard.clock();
                    }
                }

                @Override
                public void close() {
                    // Nothing is held.
                }
            });
            sequencer.start();
            heard.awaitAll();
        } catch (MidiUnavailableException | InvalidMidiDataException broken) {
            throw new IllegalStateException(broken);
        }
        return heard.late();
    }

    private static Show song() {
        Device device = new Device(
                0,
                "Sequencer",
                Department.SOUND,
                new Connection.NetworkMidi("127.0.0.1", 5004),
                0,
                Numbering.WIRE,
                0,
                List.of());
        Score score = Score.of("1 quarter = 125\n" + (QUARTERS / 4 + 2) + " end");
        return Show.empty(1, "Bench")
                .withDevice(device.withInStep(
                        new InStep(true, false, false, TimeCode.Rate.PAL_25, InStep.Vamping.COUNTS_ON)))
                .withItem(new Item(0, ItemKind.SONG, "Steady", 0, Optional.of(score), List.of()), 0);
    }
}
