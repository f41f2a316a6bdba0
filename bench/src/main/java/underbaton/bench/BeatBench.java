package underbaton.bench;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.Sequencer;
import javax.sound.midi.ShortMessage;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.engine.DryRun;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlannedMessage;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.exchange.PlanFile;
import underbaton.core.loop.Loops;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
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
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.score.Position;
import underbaton.core.score.Score;
import underbaton.core.traffic.Traffic;

/**
 * How late the messages of a dense song leave: ours through performer and lanes, and the JDK's sequencer with the very
 * same song as a file, by turns, idle and with every core busy.
 */
final class BeatBench {

    private static final int MOMENTS = 3334;
    /** At 125 a tick lasts half a millisecond, so that a moment comes each 4 ms. */
    private static final int TICKS_BETWEEN = 8;

    private static final long LEAD_IN_NANOS = 500_000_000L;

    private static final Loops LOOPS = new Loops(Thread::new);

    private final Show show = song();
    private final Plan plan = Planner.plan(show);
    private final DryRun run = DryRun.of(plan);
    /** Planned moments, and messages in the order in which each machine gets them. */
    private final Map<Integer, List<PlannedMessage>> planned = new HashMap<>();

    private final int messages;

    private BeatBench() {
        run.messages().forEach(m -> planned.computeIfAbsent(m.deviceId(), d -> new ArrayList<>())
                .add(m));
        messages = planned.values().stream().mapToInt(List::size).sum();
    }

    static void run() throws IOException, InterruptedException {
        BeatBench bench = new BeatBench();
        System.out.printf(
                "%,d messages in %.0f s to three machines inside the process; how late each left, ms%n",
                bench.messages, MOMENTS * 0.004);
        SideBySide.compare(bench::ours, bench::jdk);
    }

    // ---- ours

    /** A machine that notes when it was reached. */
    private static final class Heard implements Outlet {
        private final long[] at;
        private int count;

        Heard(int most) {
            at = new long[most];
        }

        @Override
        public Outcome send(Message message) {
            at[count++] = System.nanoTime();
            return new Sent(((MidiMessage) message).encode());
        }
    }

    private long[] ours() throws InterruptedException {
        Map<Integer, Heard> machines = new HashMap<>();
        Map<Integer, Lane> lanes = new HashMap<>();
        Scribe scribe = new Scribe(new Traffic(20_000), LOOPS);
        Timekeeper time = new Timekeeper("lanes", SideBySide.CLOCK, LOOPS);
        for (Device device : show.devices()) {
            Heard heard = new Heard(planned.get(device.id()).size());
            machines.put(device.id(), heard);
            lanes.put(device.id(), new Lane(1, device, heard, SideBySide.CLOCK, scribe, time));
        }
        Outbox outbox = new Outbox() {
            @Override
            public void send(ScheduledMessage message) {
                lanes.get(message.deviceId()).send(message);
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
            while (count(machines) < messages) {
                Thread.sleep(50);
            }
        } finally {
            lanes.values().forEach(Lane::close);
            time.close();
            scribe.close();
        }
        long[] late = new long[messages];
        int i = 0;
        for (var machine : machines.entrySet()) {
            List<PlannedMessage> due = planned.get(machine.getKey());
            for (int n = 0; n < due.size(); n++) {
                late[i++] = machine.getValue().at[n] - due.get(n).atNanos();
            }
        }
        return SideBySide.sinceEarliest(late);
    }

    private static int count(Map<Integer, Heard> machines) {
        return machines.values().stream().mapToInt(h -> h.count).sum();
    }

    // ---- the JDK

    private long[] jdk() throws InterruptedException {
        Map<Integer, Integer> next = new HashMap<>();
        long[] late = new long[messages];
        int[] count = {0};
        try (Sequencer sequencer = MidiSystem.getSequencer(false)) {
            sequencer.open();
            byte[] file = PlanFile.write(run, show.items().get(0).id()).write();
            sequencer.setSequence(MidiSystem.getSequence(new ByteArrayInputStream(file)));
            Map<Integer, List<PlannedMessage>> byChannel = new HashMap<>();
            show.devices().forEach(d -> byChannel.put(d.channel(), planned.get(d.id())));
            sequencer.getTransmitter().setReceiver(new Receiver() {
                @Override
                public void send(javax.sound.midi.MidiMessage message, long timeStamp) {
                    long now = System.nanoTime();
                    if (message instanceof ShortMessage s && count[0] < late.length) {
                        int n = next.merge(s.getChannel(), 1, Integer::sum) - 1;
                        late[count[0]++] =
                                now - byChannel.get(s.getChannel()).get(n).atNanos();
                    }
                }

                @Override
                public void close() {
                    // Nothing is held.
                }
            });
            Thread.sleep(LEAD_IN_NANOS / 1_000_000);
            sequencer.start();
            while (sequencer.isRunning()) {
                Thread.sleep(50);
            }
        } catch (MidiUnavailableException | InvalidMidiDataException | IOException broken) {
            throw new IllegalStateException(broken);
        }
        if (count[0] != messages) {
            throw new IllegalStateException("the JDK played " + count[0] + " of " + messages + " messages");
        }
        return SideBySide.sinceEarliest(late);
    }

    // ---- the song

    private static Show song() {
        Show show = Show.empty(1, "Bench");
        show = machine(show, "Keys", 0, new ProgramChange(0, 5));
        show = machine(show, "Console", 1, new ControlChange(0, 7, 100));
        show = machine(show, "Lights", 2, new NoteOn(0, 1, 127));
        Score score = Score.of("1 quarter = 125");
        show = show.withItem(new Item(0, ItemKind.SONG, "Dense", 0, Optional.of(score), List.of()), 0);
        List<Call> calls = show.devices().stream()
                .map(d -> new Call(d.id(), d.phrases().get(0).id()))
                .toList();
        List<Cue> cues = new ArrayList<>(MOMENTS);
        for (int i = 0; i < MOMENTS; i++) {
            Position at = score.bars().position(480 + (long) i * TICKS_BETWEEN);
            cues.add(new Cue(0, CueNumber.of(Integer.toString(i + 1)), new Start.AtPosition(at, 0), "", calls, 0));
        }
        return show.withCues(show.items().get(0).id(), cues);
    }

    private static Show machine(Show show, String name, int channel, MidiMessage says) {
        Show with = show.withDevice(new Device(
                0,
                name,
                Department.SOUND,
                new Connection.NetworkMidi("127.0.0.1", 5004),
                channel,
                Numbering.WIRE,
                0,
                List.of()));
        int id = with.devices().get(with.devices().size() - 1).id();
        return with.withPhrase(id, new Phrase(0, "Say", List.of(says), Effect.MOMENT, false));
    }
}
