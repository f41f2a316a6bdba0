package underbaton.web.stage;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.InetSocketAddress;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import underbaton.core.loop.Loops;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.perform.HandClock;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.signal.Signal;
import underbaton.core.traffic.Traffic;

/** What is thinned is the log; what comes in is heard, whoever says it. */
class ArrivalsTest {

    private static final long SECOND = 1_000_000_000L;
    private static final InetSocketAddress STRANGER = new InetSocketAddress("192.0.2.7", 50_000);
    private static final InetSocketAddress MACHINE = new InetSocketAddress("192.0.2.8", 50_000);
    private static final Device LAYOUT = new Device(
            8, "Layout", Department.VIDEO, new Connection.Osc("192.0.2.8", 9000, ""), 0, Numbering.WIRE, 0, List.of());

    private enum Origin {
        MACHINE,
        STRANGER
    }

    private final HandClock clock = new HandClock();
    private final Traffic traffic = new Traffic(50_000);
    private final Loops loops = new Loops(Thread::new);
    private final Arrivals arrivals = new Arrivals(traffic, clock, loops);
    private final RigAddresses rig = new RigAddresses(loops, all -> {});
    private final List<Message> heard = new ArrayList<>();
    private final List<String> names = new ArrayList<>();

    @BeforeEach
    void listen() {
        rig.belongTo(List.of(LAYOUT));
        arrivals.knowBy(rig::speaker);
        arrivals.listen((source, signal) -> {
            heard.add(signal.message());
            names.add(source.name());
        });
    }

    @AfterEach
    void close() {
        arrivals.close();
        rig.close();
    }

    private void say(Origin origin, Message message) {
        arrivals.heard(origin == Origin.MACHINE ? MACHINE : STRANGER, new Signal(message, Bytes.NONE, clock.nanos()));
    }

    @Test
    void a_clock_goes_on_only_from_a_machine_whose_clock_a_line_carries() {
        say(Origin.MACHINE, RealTime.CLOCK);
        arrivals.passClocksOf(Set.of(LAYOUT.id()));
        say(Origin.MACHINE, RealTime.CLOCK);
        say(Origin.STRANGER, RealTime.CLOCK);
        assertThat(heard).containsExactly(RealTime.CLOCK);
        assertThat(traffic.after(0, 10)).isEmpty();
    }

    @Test
    void what_cannot_be_read_has_one_line_a_minute_that_says_how_much_it_was() {
        for (int i = 0; i < 150; i++) {
            arrivals.unread(STRANGER, Bytes.ofHex("2F 61 00 00 2C 7A 00 00"));
            arrivals.unread(MACHINE, Bytes.ofHex("00 00 00 00"));
            clock.forward(SECOND);
        }
        List<String> lines = traffic.after(0, 100).stream()
                .filter(e -> e.device().startsWith("OSC from"))
                .map(e -> e.bytes().hex() + " " + e.meaning())
                .toList();
        assertThat(lines).hasSizeBetween(3, 4).first().asString().startsWith("2F 61 00 00 2C 7A 00 00 cannot be read");
        assertThat(lines).last().asString().endsWith("59 more since the last line");
        assertThat(traffic.after(0, 100)).filteredOn(e -> e.deviceId() == 8).hasSizeBetween(3, 4);
        assertThat(heard).isEmpty();
    }

    /** A clock at 160 is 64 ticks a second (24 a quarter, MIDI 1.0), which once filled the share of who plays it. */
    @ParameterizedTest
    @EnumSource(Origin.class)
    void a_pedal_is_heard_beside_a_clock(Origin origin) {
        for (int i = 0; i < 20 * 64; i++) {
            say(origin, RealTime.CLOCK);
            if (i % 64 == 63) {
                say(origin, new ControlChange(0, 64, 127));
            }
            clock.forward(SECOND / 64);
        }
        assertThat(heard).hasSize(20).containsOnly(new ControlChange(0, 64, 127));
        assertThat(traffic.last()).as("a tick is no signal, and no line").isEqualTo(20);
    }

    @ParameterizedTest
    @EnumSource(Origin.class)
    void a_ride_of_a_fader_is_heard_to_its_end(Origin origin) {
        for (int i = 0; i < 1000; i++) {
            say(origin, new OscMessage("/fader/1", List.of(i / 999f)));
            clock.forward(SECOND / 200);
        }
        assertThat(heard).hasSize(1000).endsWith(new OscMessage("/fader/1", List.of(1f)));
    }

    @ParameterizedTest
    @EnumSource(Origin.class)
    void every_press_is_heard_beside_fifty_meters(Origin origin) {
        for (int i = 0; i < 20 * 50; i++) {
            say(origin, new OscMessage("/meter/" + i % 50, List.of(i % 7 / 7f)));
            if (i % 50 == 49) {
                say(origin, new OscMessage("/pad/go", List.of(1)));
            }
            clock.forward(SECOND / 50);
        }
        assertThat(heard)
                .filteredOn(new OscMessage("/pad/go", List.of(1))::equals)
                .hasSize(20);
    }

    @ParameterizedTest
    @EnumSource(Origin.class)
    void a_machine_of_the_rig_is_known_at_our_port_by_its_address(Origin origin) {
        say(origin, new OscMessage("/scene", List.of(3)));
        assertThat(names).containsExactly(origin == Origin.MACHINE ? "Layout" : "OSC from 192.0.2.7");
    }

    @ParameterizedTest
    @EnumSource(Origin.class)
    void of_machines_that_share_an_address_the_port_tells(Origin origin) {
        Device second = new Device(
                9,
                "Second",
                Department.VIDEO,
                new Connection.Osc("192.0.2.8", 9001, ""),
                0,
                Numbering.WIRE,
                0,
                List.of());
        rig.belongTo(List.of(LAYOUT, second));
        InetSocketAddress from = new InetSocketAddress("192.0.2.8", origin == Origin.MACHINE ? 9001 : 50_000);
        assertThat(rig.speaker(from)).isEqualTo(origin == Origin.MACHINE ? Optional.of(second) : Optional.empty());
    }

    @ParameterizedTest
    @EnumSource(Origin.class)
    void a_stranger_fills_its_share_of_the_log_and_no_more(Origin origin) {
        for (int i = 0; i < 100; i++) {
            say(origin, new OscMessage("/fader/1", List.of(i / 99f)));
        }
        assertThat(traffic.last()).isEqualTo(origin == Origin.MACHINE ? 100 : 30);
        assertThat(heard).hasSize(100);
    }
}
