package underbaton.wire;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.wire.Waiting.LOOPS;
import static underbaton.wire.Waiting.until;

import java.net.InetAddress;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.perform.Outlet;
import underbaton.core.rig.Connection;
import underbaton.core.signal.Signal;
import underbaton.wire.session.Peer;
import underbaton.wire.session.SessionEndpoint;

/** Ways out are opened once, shared, acknowledged, and closed when the last has given them back. */
class SwitchboardTest {

    private static final InetAddress LOOPBACK = InetAddress.getLoopbackAddress();

    private final List<MidiMessage> atMachine = new CopyOnWriteArrayList<>();
    private final List<Message> atUs = new CopyOnWriteArrayList<>();
    private final Link.Ear ear = new Link.Ear() {
        @Override
        public void heard(Signal signal) {
            atUs.add(signal.message());
        }

        @Override
        public void changed() {}
    };

    private SessionEndpoint machine() throws Exception {
        return new SessionEndpoint(
                "Desk", LOOPBACK, 0, new SystemClock(), LOOPS, (peer, message, at) -> atMachine.add(message));
    }

    @Test
    void twoDevicesOnOneConnectionShareOneSession() throws Exception {
        try (SessionEndpoint machine = machine();
                Switchboard switchboard = new Switchboard("Baton", LOOPBACK, new SystemClock(), LOOPS)) {
            Connection connection = new Connection.NetworkMidi("127.0.0.1", machine.port());
            Link first = switchboard.connect(connection, ear);
            assertThat(switchboard.connect(connection, ear)).isSameAs(first);
            until("reached", () -> first.health().reached());
            assertThat(machine.peers()).hasSize(1);
            switchboard.giveBack(connection, ear);
            assertThat(first.health().reached()).as("one device still has it").isTrue();
            switchboard.giveBack(connection, ear);
            assertThat(first.health().reached()).isFalse();
            until("the machine was told", () -> machine.peers().isEmpty());
        }
    }

    @Test
    void whatIsSentIsAcknowledgedAndWhatTheMachineSaysIsHeard() throws Exception {
        try (SessionEndpoint machine = machine();
                Switchboard switchboard = new Switchboard("Baton", LOOPBACK, new SystemClock(), LOOPS)) {
            // At the discard port nobody speaks MIDI (RFC 863).
            Link nobody = switchboard.connect(new Connection.NetworkMidi("127.0.0.1", 9), ear);
            assertThat(nobody.send(new NoteOn(0, 1, 127))).isInstanceOf(Outlet.NotSent.class);
            Link link = switchboard.connect(new Connection.NetworkMidi("127.0.0.1", machine.port()), ear);
            assertThat(link.arrival()).isNotEqualTo(Arrival.ARRIVED);
            until("reached", () -> link.health().reached());
            assertThat(link.send(new OscMessage("/a", List.of()))).isInstanceOf(Outlet.NotSent.class);
            Outlet.Outcome outcome = link.send(new NoteOn(0, 28, 127));
            assertThat(outcome)
                    .isInstanceOfSatisfying(
                            Outlet.Sent.class, s -> assertThat(s.bytes().hex()).isEqualTo("90 1C 7F"));
            until("acknowledged", () -> link.arrival() == Arrival.ARRIVED);
            assertThat(atMachine).containsExactly(new NoteOn(0, 28, 127));
            until("the machine's side is open", () -> machine.peers().stream().anyMatch(Peer::isOpen));
            machine.peers().get(0).send(List.of(new NoteOn(3, 60, 1)));
            until("heard", () -> atUs.contains(new NoteOn(3, 60, 1)));
        }
    }

    @Test
    void nobodyMayInviteUsUntilTheDoorIsOpened() throws Exception {
        List<Message> guests = new CopyOnWriteArrayList<>();
        try (SessionEndpoint machine = machine();
                Switchboard switchboard = new Switchboard(
                        "Baton", LOOPBACK, 0, new SystemClock(), LOOPS, (peer, message, at) -> guests.add(message))) {
            Peer asking = machine.invite("127.0.0.1", switchboard.port(), (peer, message, at) -> {});
            until("refused", () -> asking.trouble().contains("refuses"));
            switchboard.admit(new Door(Door.Mode.LISTED, List.of("Pad", " desk ")));
            until("admitted", asking::isOpen);
            assertThat(switchboard.guests()).containsExactly("Desk");
            asking.send(List.of(new NoteOn(0, 36, 90)));
            until("heard", () -> guests.contains(new NoteOn(0, 36, 90)));
        }
    }
}
