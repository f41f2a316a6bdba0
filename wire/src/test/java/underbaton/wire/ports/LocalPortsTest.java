package underbaton.wire.ports;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.wire.Waiting.LOOPS;
import static underbaton.wire.Waiting.until;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import javax.sound.midi.ShortMessage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SysEx;
import underbaton.core.perform.Outlet;
import underbaton.core.signal.Signal;
import underbaton.wire.Arrival;
import underbaton.wire.Link;
import underbaton.wire.SystemClock;

/** Local ports, found by the JDK's own discovery; the loop stands for the hardware. */
class LocalPortsTest {

    private static final String NAME = "Test loop";

    private final List<Message> heard = new CopyOnWriteArrayList<>();
    private final Link.Ear ear = new Link.Ear() {
        @Override
        public void heard(Signal signal) {
            heard.add(signal.message());
        }

        @Override
        public void changed() {}
    };

    @AfterEach
    void pullOut() {
        LoopPorts.unplug(NAME);
        StagePorts.WAYS.clear();
    }

    @Test
    void aPortComesAndGoesAndComesBack() throws InterruptedException {
        assertThat(LocalPorts.outs()).contains("Loop 1").doesNotContain(NAME, "Gervill", "Real Time Sequencer");
        try (LocalMidiLink link = new LocalMidiLink(NAME, new SystemClock(), LOOPS, ear)) {
            assertThat(link.send(new NoteOn(0, 1, 1))).isInstanceOf(Outlet.NotSent.class);
            assertThat(link.health().words()).contains("no MIDI port “Test loop”");
            LoopPorts.plug(NAME);
            assertThat(LocalPorts.outs()).contains(NAME);
            assertThat(LocalPorts.ins()).contains(NAME);
            until("reached", () -> link.health().reached());
            LoopPorts.unplug(NAME);
            assertThat(link.send(new NoteOn(0, 1, 1))).isInstanceOf(Outlet.NotSent.class);
            until("lost", () -> !link.health().reached());
            LoopPorts.plug(NAME);
            until("reached again", () -> link.health().reached());
            assertThat(link.send(new NoteOn(0, 2, 1))).isInstanceOf(Outlet.Sent.class);
        }
    }

    @Test
    void everyKindOfMessagePassesThePort() throws InterruptedException {
        LoopPorts.plug(NAME);
        try (LocalMidiLink link = new LocalMidiLink(NAME, new SystemClock(), LOOPS, ear)) {
            // Each way opens by itself, and the way in may be the later one.
            until("heard", () -> {
                link.send(RealTime.STOP);
                return !heard.isEmpty();
            });
            heard.clear();
            link.send(new NoteOn(3, 60, 100));
            link.send(new BankProgram(0, 130, 5));
            link.send(new SysEx(Bytes.of(0x7D, 1, 2)));
            link.send(RealTime.START);
            assertThat(heard)
                    .containsExactly(
                            new NoteOn(3, 60, 100),
                            new ControlChange(0, 0, 1),
                            new ControlChange(0, 32, 2),
                            new ProgramChange(0, 5),
                            new SysEx(Bytes.of(0x7D, 1, 2)),
                            RealTime.START);
            assertThat(link.send(new OscMessage("/a", List.of()))).isInstanceOf(Outlet.NotSent.class);
            assertThat(link.arrival()).isEqualTo(Arrival.NO_WORD);
        }
    }

    @Test
    void whereTheWayInIsHeldByAnotherTheWayOutOpens() throws Exception {
        StagePorts.Way out = new StagePorts.Way("Stage box", true);
        StagePorts.Way in = new StagePorts.Way("Stage box", false);
        in.held = true;
        StagePorts.WAYS.addAll(List.of(out, in));
        try (LocalMidiLink link = new LocalMidiLink("Stage box", new SystemClock(), LOOPS, ear)) {
            until("reached", () -> link.health().reached());
            assertThat(link.send(new NoteOn(0, 1, 1))).isInstanceOf(Outlet.Sent.class);
            assertThat(out.got).hasSize(1);
            until("told", () -> link.health().words().startsWith("it cannot be heard: busy"));
            in.held = false;
            until("heard again", () -> link.health().words().isEmpty());
            in.says(new ShortMessage(ShortMessage.NOTE_ON, 0, 60, 9));
            assertThat(heard).containsExactly(new NoteOn(0, 60, 9));
        }
        assertThat(out.isOpen() || in.isOpen()).isFalse();
    }

    @Test
    void aPedalThatHasOnlyAWayInIsHeard() throws Exception {
        StagePorts.Way in = new StagePorts.Way("Pedal", false);
        StagePorts.WAYS.add(in);
        try (LocalMidiLink link = new LocalMidiLink("Pedal", new SystemClock(), LOOPS, ear)) {
            until("reached", () -> link.health().reached());
            in.says(new ShortMessage(ShortMessage.CONTROL_CHANGE, 0, 64, 127));
            assertThat(heard).containsExactly(new ControlChange(0, 64, 127));
            assertThat(link.send(new NoteOn(0, 1, 1)))
                    .isEqualTo(new Outlet.NotSent("the MIDI port “Pedal” has no way out; it is only heard"));
        }
    }

    @Test
    void pluggedInAndPulledOutFiftyTimesItIsThereAndNoThreadIsLeft() throws Exception {
        int before = Thread.activeCount();
        for (int i = 0; i < 50; i++) {
            StagePorts.Way out = new StagePorts.Way("Rack", true);
            StagePorts.Way in = new StagePorts.Way("Rack", false);
            StagePorts.WAYS.addAll(List.of(out, in));
            try (LocalMidiLink link = new LocalMidiLink("Rack", new SystemClock(), LOOPS, ear)) {
                until("reached", () -> link.health().reached());
                StagePorts.WAYS.removeAll(List.of(out, in));
                if (i % 10 == 0) {
                    until("lost", () -> !link.health().reached());
                }
            }
            assertThat(out.isOpen() || in.isOpen()).isFalse();
            assertThat(out.openings).isEqualTo(1);
        }
        until("no thread is left", () -> Thread.activeCount() <= before);
    }
}
