package underbaton.wire.session;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.wire.Waiting.LOOPS;
import static underbaton.wire.Waiting.until;

import java.net.InetAddress;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.ShowControl;
import underbaton.core.midi.SysEx;
import underbaton.wire.SystemClock;

/** What comes through a line that loses packets, for each kind of message, seen by a receiver that is none of ours. */
class LossTableTest {

    private static final InetAddress LOOPBACK = InetAddress.getLoopbackAddress();
    private static final int OF_EACH = Integer.getInteger("baton.losses", 100);

    /** What is sent, the n-th time; and whether each single one counts, or only the last. */
    private record Kind(boolean counts, IntFunction<List<MidiMessage>> sent) {}

    private static final Map<String, Kind> KINDS = new LinkedHashMap<>();

    static {
        KINDS.put("program, another each time", new Kind(false, n -> List.of(new ProgramChange(0, n % 128))));
        KINDS.put("program, the same again", new Kind(true, n -> List.of(new ProgramChange(0, 9))));
        KINDS.put("bank and program", new Kind(false, n -> List.of(new BankProgram(1, n * 7, n % 128))));
        KINDS.put("control, another value", new Kind(false, n -> List.of(new ControlChange(2, 7, n % 128))));
        KINDS.put("control, the same again", new Kind(true, n -> List.of(new ControlChange(2, 20, 127))));
        KINDS.put("bend", new Kind(false, n -> List.of(new PitchBend(3, n * 80))));
        KINDS.put("pressure", new Kind(false, n -> List.of(new ChannelPressure(3, n % 128))));
        KINDS.put("key pressure", new Kind(false, n -> List.of(new PolyPressure(3, 60, n % 128))));
        KINDS.put("short notes", new Kind(true, n -> List.of(new NoteOn(4, n % 5, 100), new NoteOff(4, n % 5, 0))));
        KINDS.put("note, the same again", new Kind(true, n -> List.of(new NoteOn(5, 60, 127))));
        KINDS.put(
                "show control",
                new Kind(true, n -> List.of(new ShowControl(2, 1, ShowControl.Command.GO, "" + n, "36", ""))));
        KINDS.put("short exclusive", new Kind(true, n -> List.of(new SysEx(Bytes.of(0x43, n % 128, n / 128)))));
    }

    /** One kind on one line, on a thread of its own. */
    private static final class Run {
        private final String name;
        private final Kind kind;
        private final int percent;
        private final boolean journals;
        private int arrived;
        private int sent;
        private boolean rightState;
        private int largest;

        Run(String name, int percent, boolean journals) {
            this.name = name;
            this.kind = KINDS.get(name);
            this.percent = percent;
            this.journals = journals;
        }

        void run() throws Exception {
            try (IndependentPeer machine = new IndependentPeer(LOOPBACK, name.hashCode() + percent);
                    IndependentPeer calm = new IndependentPeer(LOOPBACK, 1);
                    SessionEndpoint baton =
                            new SessionEndpoint("Baton", LOOPBACK, 0, new SystemClock(), LOOPS, (p, m, n) -> {})) {
                machine.readsJournals = journals;
                Peer peer = baton.invite("127.0.0.1", machine.port(), (p, m, n) -> {});
                Peer other = baton.invite("127.0.0.1", calm.port(), (p, m, n) -> {});
                until("open", () -> peer.isOpen() && other.isOpen());
                machine.loss = percent;
                for (int n = 0; n < OF_EACH; n++) {
                    peer.send(kind.sent.apply(n));
                    other.send(kind.sent.apply(n));
                    Thread.sleep(percent < 50 ? 25 : 100);
                }
                settle(machine, calm);
                List<String> right = calm.executed();
                sent = right.size();
                arrived = machine.executed().size();
                rightState = machine.state().equals(calm.state());
                largest = machine.largestPacket();
            }
        }

        /** Until nothing has come for half a second and both are where they should be; a while at most. */
        private void settle(IndependentPeer machine, IndependentPeer calm) throws InterruptedException {
            int before = -1;
            int still = 0;
            for (int waited = 0; still < 25 && waited < 500; waited++) {
                Thread.sleep(20);
                int now = machine.executed().size() + calm.executed().size();
                boolean there = !journals || machine.state().equals(calm.state());
                still = now == before && there ? still + 1 : 0;
                before = now;
            }
        }

        String line() {
            return "%-28s %3d %%   state %-5s   %3d of %3d"
                    .formatted(name, percent, rightState ? "right" : "WRONG", arrived, sent);
        }
    }

    private static List<Run> all(int percent, boolean journals) throws Exception {
        List<Run> runs = new ArrayList<>();
        List<Thread> threads = new ArrayList<>();
        List<Throwable> faults = new ArrayList<>();
        for (String name : KINDS.keySet()) {
            Run run = new Run(name, percent, journals);
            runs.add(run);
            Thread thread = new Thread(() -> {
                try {
                    run.run();
                } catch (Exception | AssertionError fault) {
                    synchronized (faults) {
                        faults.add(fault);
                    }
                }
            });
            threads.add(thread);
            thread.start();
        }
        for (Thread thread : threads) {
            thread.join();
        }
        assertThat(faults).isEmpty();
        System.out.println("To a machine that " + (journals ? "reads" : "does not read") + " journals:");
        runs.forEach(r -> System.out.println("  " + r.line()));
        return runs;
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 5, 20, 50})
    void aReceiverThatReadsJournalsEndsInTheRightStateAndHasCountedRight(int percent) throws Exception {
        for (Run run : all(percent, true)) {
            assertThat(run.rightState).as(run.line()).isTrue();
            if (run.kind.counts || percent == 0) {
                assertThat(run.arrived).as(run.line()).isEqualTo(run.sent);
            }
            assertThat(run.largest).as(run.line()).isLessThanOrEqualTo(1400);
        }
    }

    /** What such a machine's line cannot promise, which the Rig says: nothing brings back what is lost. */
    @Test
    void aReceiverThatReadsNoneLosesWhatTheLineLoses() throws Exception {
        for (Run run : all(20, false)) {
            assertThat(run.arrived).as(run.line()).isBetween(OF_EACH / 2, run.sent - 1);
        }
    }
}
