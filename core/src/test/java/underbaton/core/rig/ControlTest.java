package underbaton.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;

/** Controls as places on the wire, and where amounts stand on their scale. */
class ControlTest {

    @Test
    void aControlIsItsMessageWithoutTheValue() {
        assertThat(Control.of(3, new ControlChange(4, 7, 95))).isEqualTo(Control.of(3, new ControlChange(4, 7, 0)));
        assertThat(Control.of(3, new OscMessage("/ch/1", List.of(0.5f))))
                .isEqualTo(Control.of(3, new OscMessage("/ch/1", List.of(1f))));
        assertThat(List.of(
                        Control.of(3, new ControlChange(4, 7, 95)),
                        Control.of(4, new ControlChange(4, 7, 95)),
                        Control.of(3, new ControlChange(5, 7, 95)),
                        Control.of(3, new ControlChange(4, 8, 95)),
                        Control.of(3, new NoteOn(4, 7, 95)),
                        Control.of(3, new PolyPressure(4, 7, 95)),
                        Control.of(3, new PitchBend(4, 7)),
                        Control.of(3, new OscMessage("/ch/1", List.of())),
                        Control.of(3, new OscMessage("/ch/2", List.of()))))
                .doesNotHaveDuplicates();
    }

    /** What stands at a place of the scale is at that place again, for every value of every unit with a scale. */
    @ParameterizedTest
    @ValueSource(strings = {"value", "per cent", "decibels", "pan", "seconds", "seconds 2 to 8"})
    void anAmountAndItsPlaceOnTheScaleBelongTogether(String unit) {
        Argument argument = Argument.of(unit);
        for (Levels levels :
                List.of(Levels.PUBLISHED, Levels.of("−∞=0, −60=1, −20=60, −10=80, 0=100, 10=127", Numbering.WIRE))) {
            for (int value = 1; value <= 127; value++) {
                double amount = argument.amountAt(value, levels);
                assertThat(argument.exact(amount, levels)).isCloseTo(value, within(1e-9));
                Message filled = argument.fill(new ControlChange(0, 7, 0), new Amount.Measure(amount), levels);
                assertThat(filled).isEqualTo(Argument.withValue(new ControlChange(0, 7, 0), value));
            }
        }
    }

    /** The volume law of General MIDI, from memory of RP-003: half a step above silence is 40·log10(0.5 / 127) dB. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"''|-96.2", "−∞=0, −60=6, 0=110|-60", "−40=10, 0=110|-40"})
    void aScaleKnowsItsQuietestLevel(String points, double decibels) {
        assertThat(Levels.of(points, Numbering.WIRE).quietest()).isCloseTo(decibels, within(0.05));
    }

    @Test
    void aMachineTakesItsTimeWithinReason() {
        Device device = new Device(
                1, "Desk", Department.SOUND, new Connection.LocalMidi("Loop 1"), 0, Numbering.WIRE, 0, List.of());
        assertThat(device.withTiming(40, 150).settleMs()).isEqualTo(150);
        assertThat(device.withTiming(40, 150).leadMs()).isEqualTo(40);
        assertThat(catching(() -> device.withTiming(0, 10_001))).contains("settles in 0 to 10,000 ms");
        assertThat(catching(() -> device.withTiming(-1, 0))).contains("A lead is 0 to 10,000 ms");
    }

    private static String catching(Runnable work) {
        try {
            work.run();
            return "";
        } catch (Refusal refused) {
            return Optional.ofNullable(refused.getMessage()).orElse("");
        }
    }
}
