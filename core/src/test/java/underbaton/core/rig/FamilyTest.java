package underbaton.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.MidiMessage;

/** The families send what machines of their sort commonly listen to. */
class FamilyTest {

    private static Device fill(Family family, List<String> names, String first) {
        Device empty = new Device(
                1,
                "It",
                Department.SOUND,
                new Connection.NetworkMidi("10.0.0.7", 5004),
                4,
                new Numbering(1, 0, -2),
                0,
                List.of());
        return family.fill(empty, names, first);
    }

    private static String bytes(Device device, String phrase, String amount) {
        Phrase called = device.phraseNamed(phrase).orElseThrow();
        Optional<Amount> given = called.argument().map(a -> a.read(amount, device.numbering(), device.levels()));
        return device.messagesFor(called, given).stream()
                .map(t -> ((MidiMessage) t.message()).encode().hex())
                .collect(Collectors.joining(" "));
    }

    /**
     * Common practice: one controller number per strip counted from 0, the channel telling which property; mute on = 127,
     * off = 0; pan 0 left, 127 right. The level by the volume law of General MIDI, from memory.
     */
    @Test
    void aStripHasLevelMuteAndPanOnThreeChannels() {
        Device console = fill(Family.STRIPS_BY_CONTROLLER, List.of("Vox", "Bass"), "");
        assertThat(bytes(console, "Bass level", "-4.9 dB")).isEqualTo("B4 01 60");
        assertThat(bytes(console, "Bass mute", "on")).isEqualTo("B5 01 7F");
        assertThat(bytes(console, "Bass mute", "off")).isEqualTo("B5 01 00");
        assertThat(bytes(console, "Bass pan", "R100")).isEqualTo("B6 01 7F");
        Device upper = fill(Family.STRIPS_BY_CONTROLLER, List.of("Vox", "Bass"), "64");
        assertThat(bytes(upper, "Bass mute", "on"))
                .as("controllers are counted as they are")
                .isEqualTo("B5 41 7F");
        assertThat(bytes(fill(Family.STRIPS_BY_CONTROLLER, List.of("Vox"), "0"), "Vox mute", "on"))
                .isEqualTo("B5 00 7F");
        assertThatThrownBy(() -> fill(Family.STRIPS_BY_CONTROLLER, List.of("Vox"), "C3"))
                .hasMessageContaining("no controller");
    }

    /** Common practice: the twelfth look from the lowest note is B−2, and a look is called with full velocity. */
    @Test
    void looksAndScenesCountFromTheFirstNumberAsTheMachinePrintsIt() {
        List<String> twelve =
                IntStream.rangeClosed(1, 12).mapToObj(i -> "Look " + i).toList();
        assertThat(bytes(fill(Family.LOOKS_BY_NOTE, twelve, ""), "Look 12", "")).isEqualTo("94 0B 7F");
        assertThat(fill(Family.SCENES_BY_PROGRAM, twelve, "10").phrases())
                .as("a scene moves the faders")
                .allMatch(p -> p.effect().takesAlong(Along.LEVELS));
        assertThat(bytes(fill(Family.SCENES_BY_PROGRAM, twelve, "10"), "Look 1", ""))
                .isEqualTo("C4 09");
        Device clips = fill(Family.CLIPS_BY_NOTE, List.of("Reel A"), "B-1");
        assertThat(bytes(clips, "Reel A", ""))
                .as("B−1 is 23: the first number is the first clip's")
                .isEqualTo("94 17 7F");
        assertThat(bytes(clips, "Stop", "")).isEqualTo("94 16 7F");
        Device lowest = fill(Family.CLIPS_BY_NOTE, List.of("Reel A"), "");
        assertThat(bytes(lowest, "Stop", "") + " " + bytes(lowest, "Reel A", ""))
                .isEqualTo("94 00 7F 94 01 7F");
        Device under = fill(Family.CLIPS_BY_NOTE, List.of("Reel A", "Reel B"), "C-2");
        assertThat(bytes(under, "Reel A", "") + " " + bytes(under, "Stop", "")).isEqualTo("94 00 7F 94 02 7F");
    }

    /** MIDI Show Control 1.0 (RP-002), from memory: GO of cue 8, lighting, device 1. */
    @Test
    void lightingIsToldByShowControl() {
        Device desk = fill(Family.LIGHTING_BY_SHOW_CONTROL, List.of("8", "Storm"), "");
        assertThat(bytes(desk, "Desk cue 8", "")).isEqualTo("F0 7F 01 02 01 01 38 F7");
        assertThat(bytes(desk, "Storm", "")).isEqualTo("F0 7F 01 02 01 01 32 F7");
    }

    @Test
    void twelveKeysAreThereTwice() {
        Device tuner = fill(Family.KEYS_BY_PROGRAM, List.of(), "");
        assertThat(tuner.phrases()).hasSize(24);
        assertThat(bytes(tuner, "Key E♭ minor", "")).isEqualTo("C4 0F");
    }

    @Test
    void whatDoesNotFitIsRefused() {
        assertThatThrownBy(() -> fill(Family.SCENES_BY_PROGRAM, List.of("A", "B"), "128"))
                .hasMessageContaining("128 numbers");
        assertThatThrownBy(() -> fill(Family.SCENES_BY_PROGRAM, List.of("A", "a"), ""))
                .hasMessageContaining("has a phrase “A” already");
    }
}
