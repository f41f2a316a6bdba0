package underbaton.core.signal;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.perform.HandClock;
import underbaton.core.rig.Numbering;

/** Whoever says much is heard; whoever says more than can be heard does not drown what counts. */
class FloodTest {

    private static final Source GUEST = new Source(Source.OTHERS, "a guest", Numbering.WIRE);
    private static final Source OTHER = new Source(Source.OTHERS, "another", Numbering.WIRE);

    private final HandClock clock = new HandClock();
    private final Flood flood = new Flood(clock);
    private final List<Message> heard = new ArrayList<>();

    private void say(Source source, Message message) {
        flood.hear(source, new Signal(message, Bytes.NONE, clock.nanos())).forEach(s -> heard.add(s.message()));
    }

    private void release() {
        flood.release((source, signal) -> heard.add(signal.message()));
    }

    @Test
    void two_thousand_things_a_second_are_all_heard() {
        for (int i = 0; i < 4000; i++) {
            say(
                    GUEST,
                    i % 2 == 0 ? new ControlChange(0, 7, i / 2 % 128) : new OscMessage("/meter", List.of(i / 4000f)));
            clock.forward(500_000);
        }
        assertThat(heard).hasSize(4000);
        assertThat(flood.words()).isEmpty();
    }

    @Test
    void in_a_flood_orders_and_the_last_value_of_each_control_are_heard() {
        IntStream.range(0, 20_000).forEach(i -> {
            say(
                    GUEST,
                    i % 4 == 0
                            ? new OscMessage("/meter", List.of((float) i))
                            : new ControlChange(0, 7 + i % 3, i % 60));
            if (i % 1000 == 0) {
                say(GUEST, new NoteOn(0, i / 1000, 100));
            }
            clock.forward(50_000);
            if (i % 400 == 0) {
                release();
            }
        });
        release();
        assertThat(heard).filteredOn(NoteOn.class::isInstance).hasSize(20);
        assertThat(last("/meter")).isEqualTo(new OscMessage("/meter", List.of(19_996f)));
        assertThat(heard.stream()
                        .filter(m -> m instanceof ControlChange c && c.controller() == 7 + 19_999 % 3)
                        .reduce((a, b) -> b))
                .contains(new ControlChange(0, 7 + 19_999 % 3, 19_999 % 60));
        assertThat(heard).as("and not all of it").hasSizeLessThan(12_000);
        assertThat(flood.words()).singleElement().asString().contains("“a guest” says more than 3000 things a second");
        clock.forward(6_000_000_000L);
        assertThat(flood.words()).as("it is over").isEmpty();
    }

    private Message last(String address) {
        return heard.stream()
                .filter(m -> m instanceof OscMessage osc && osc.address().equals(address))
                .reduce((one, later) -> later)
                .orElseThrow();
    }

    @Test
    void a_pedal_that_is_pressed_in_a_flood_has_been_pressed() {
        IntStream.range(0, Flood.FREE).forEach(i -> say(GUEST, new ControlChange(0, 7, i % 128)));
        heard.clear();
        say(GUEST, new ControlChange(0, 64, 127));
        say(GUEST, new ControlChange(0, 64, 0));
        release();
        assertThat(heard).containsExactly(new ControlChange(0, 64, 127), new ControlChange(0, 64, 0));
    }

    @Test
    void whoever_floods_takes_nobody_elses_share() {
        IntStream.range(0, 50_000).forEach(i -> say(GUEST, new NoteOn(0, i % 128, 1)));
        assertThat(heard).hasSize(Flood.FREE + Flood.MOST);
        heard.clear();
        say(OTHER, new NoteOn(0, 60, 1));
        assertThat(heard).hasSize(1);
        assertThat(flood.words()).singleElement().asString().contains("48700 were too many even for that");
    }
}
