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
import underbaton.core.midi.Message;
import underbaton.core.midi.Messages;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;

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
        // RP-013: locate with its target form and subframes; the hours hold the rate, 25 frames here.
        "machine control locate 01:02:03:04 at 25 fps to 127,F0 7F 7F 06 44 06 01 21 02 03 04 00 F7",
        // RP-002, the data from memory: control and value least significant first, and one macro.
        "show control set 130 value 300 to 2,F0 7F 02 02 01 06 02 01 2C 02 F7",
        "show control fire 12 to 2 format 30,F0 7F 02 02 30 07 0C F7",
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
            assertThat(wording.read(wording.write(message))).containsExactly(message);
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
    void oscTypesAreSaidAsManualsPrintThem() {
        assertThat(wording.read("osc /mute T")).containsExactly(new OscMessage("/mute", List.of(true)));
        assertThat(wording.write(wording.read("osc /mute F"))).isEqualTo("osc /mute F");
        assertThat(wording.read("osc /cue ,sifT 12 3 0.5"))
                .containsExactly(new OscMessage("/cue", List.of("12", 3, 0.5f, true)));
        assertThat(wording.read("osc /title ,s \"Slow river\""))
                .containsExactly(new OscMessage("/title", List.of("Slow river")));
        assertThatThrownBy(() -> wording.read("osc /cue ,si 12")).hasMessageContaining("more arguments than follow");
        assertThatThrownBy(() -> wording.read("osc /cue ,s Slow river")).hasMessageContaining("there is more: “river”");
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
