package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import underbaton.core.exchange.PhraseTable;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Levels;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.Standing;
import underbaton.core.store.DeviceFile;

/** Where a scene leaves the faders, written and read, and carried along with its machine. */
class SceneLevelsTest {

    private final Device console = console();

    private static Device console() {
        Device device = new Device(
                        0,
                        "Console",
                        Department.SOUND,
                        new Connection.NetworkMidi("127.0.0.1", 5004),
                        4,
                        Numbering.WIRE,
                        0,
                        List.of())
                .withLevels(Levels.of("−∞=0, −60=10, −20=50, −10=80, 0=100, 10=127", Numbering.WIRE));
        device = device.withPhrase(phrase("Scene 4", "program 4", "", "holds scene, takes along levels"));
        device = device.withPhrase(phrase("Vox 1", "control 1 to ?", "decibels", "levels"));
        device = device.withPhrase(phrase("Band; all", "control 2 to ? on channel +1", "per cent", "levels"));
        return device.withPhrase(phrase("Tap", "control 3 to ?", "per cent", "moment"));
    }

    private static Phrase phrase(String name, String says, String argument, String effect) {
        return new Phrase(
                0,
                name,
                new SpeechWording(Numbering.WIRE).read(says),
                argument.isEmpty() ? Optional.empty() : Optional.of(Argument.of(argument)),
                Effect.of(effect),
                false,
                false,
                Remarks.NONE);
    }

    /** By the table −10 dB is 80; half of 127 is 63.5. */
    @Test
    void what_cells_say_is_read_by_the_machines_own_scale() {
        List<Standing> read = SceneLevels.read(console, "vox 1 -10 dB; \"Band; all\" → 50 %");
        assertThat(read).extracting(Standing::exact).containsExactly(80.0, 63.5);
        assertThat(read.get(1).open()).isEqualTo(new ControlChange(1, 2, 0));
        assertThat(SceneLevels.write(console, read)).isEqualTo("Vox 1 → −10 dB; \"Band; all\" → 50 %");
        assertThat(SceneLevels.read(console, SceneLevels.write(console, read))).isEqualTo(read);
        assertThat(SceneLevels.read(console, "Vox 1 off\n\n\"Band; all\" → 1 %"))
                .as("a line each")
                .hasSize(2);
    }

    @Test
    void what_is_no_level_is_refused_by_its_words() {
        refused("Vox 1 -10 dB; Tap 5 %", "“Tap 5 %” is no level");
        refused("Vox 1 -10 dB in 3 s", "is no level");
        refused("Vox 1 -10 dB; Vox 1 0 dB", "stands here already");
        refused("Vox 7 -10 dB", "no phrase “Vox 7 -10 dB”");
    }

    private void refused(String typed, String words) {
        assertThatThrownBy(() -> SceneLevels.read(console, typed))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words);
    }

    @Test
    void they_travel_with_the_machine_though_their_phrases_come_later() {
        Phrase scene = console.phraseNamed("Scene 4").orElseThrow();
        Device said = console.withPhrases(List.of(
                scene.withLeaves(SceneLevels.read(console, "Vox 1 -10 dB")),
                console.phraseNamed("Vox 1").orElseThrow()));
        List<Standing> leaves = said.phraseNamed("Scene 4").orElseThrow().leaves();
        byte[] file = DeviceFile.write(said).getBytes(StandardCharsets.UTF_8);
        assertThat(DeviceFile.read(file).phraseNamed("Scene 4").orElseThrow().leaves())
                .isEqualTo(leaves);
        byte[] table = PhraseTable.write(said).getBytes(StandardCharsets.UTF_8);
        assertThat(PhraseTable.read(said.withPhrases(List.of()), table)
                        .phraseNamed("Scene 4")
                        .orElseThrow()
                        .leaves())
                .isEqualTo(leaves);
    }
}
