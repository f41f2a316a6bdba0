package underbaton.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.FullFrame;
import underbaton.core.midi.MachineControl;
import underbaton.core.midi.Message;
import underbaton.core.midi.Messages;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.ShowControl;

class WordingTest {

    private final Wording wording = new Wording(new Numbering(1, 0, -2));

    @ParameterizedTest
    @CsvSource({
        "note E0,90 1C 7F",
        "note 28 at 100,90 1C 64",
        "note off E0,80 1C 00",
        "program 10,C0 09",
        "bank 3 program 1,B0 00 00 B0 20 03 C0 00",
        "Control 7  to 100,B0 07 64",
        "control 0 to 127 on channel +1,B1 00 7F",
        "bend 0,E0 00 40",
        "sysex F0 7D 01 F7,F0 7D 01 F7",
        "sysex 7d01,F0 7D 01 F7",
        "show control go 8 list 36 to 2,F0 7F 02 02 01 01 38 00 33 36 F7",
        "machine control play to 127,F0 7F 7F 06 02 F7",
        "start,FA",
    })
    void wordsBecomeBytes(String typed, String hex) {
        MidiMessage read = (MidiMessage) wording.read(typed).get(0);
        assertThat(read.encode().hex()).isEqualTo(hex);
    }

    @Test
    void whatIsWrittenIsReadBackTheSame() {
        Random random = new Random(3);
        for (int i = 0; i < 5000; i++) {
            MidiMessage message = Messages.random(random);
            boolean onlyTold = message instanceof FullFrame
                    || message instanceof MachineControl m && m.target().isPresent()
                    || message instanceof ShowControl s && s.time().isPresent();
            if (!onlyTold) {
                assertThat(wording.read(wording.write(message))).containsExactly(message);
            }
        }
    }

    @Test
    void oscKeepsItsTypes() {
        List<Message> read = wording.read("osc /Camera/program 3 0.5 \"two words\" on");
        assertThat(read).containsExactly(new OscMessage("/Camera/program", List.of(3, 0.5f, "two words", "on")));
        assertThat(wording.read(wording.write(read)))
                .containsExactly(new OscMessage("/Camera/program", List.of(3, 0.5f, "two words", "on")));
    }

    @Test
    void severalMessagesArePartedBySemicolons() {
        assertThat(wording.read("note E0; control 7 to 1\n"))
                .containsExactly(new NoteOn(0, 28, 127), new ControlChange(0, 7, 1));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "note 128",
                "program 0",
                "control 128 to 3",
                "control 1 to 128",
                "bend 9000",
                "play loud",
                "sysex F0 80 F7",
                "sysex 7D 0",
                "show control dance to 1",
                "osc camera 1",
                "note E0 on channel +16",
                "program 99999999999",
                "control 7 to ?",
            })
    void whatCannotBeSentIsRefusedAndQuoted(String typed) {
        assertThatThrownBy(() -> wording.read(typed)).isInstanceOf(Refusal.class);
    }
}
