package underbaton.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
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

    /**
     * Ten layouts made up for this test, their bytes worked out by hand: the status is the kind and the channel less one, the number what the
     * machine prints turned into 0–127 on paper.
     */
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                // family | channel | programs from | bank of | note 0 | first | names | phrase | amount | bytes
                "STRIPS_BY_CONTROLLER | 1 | 1 | 0 | -2 | | 32 | N32 mute | on | B1 1F 7F",
                "STRIPS_BY_CONTROLLER | 13 | 1 | 0 | -2 | 40 | 8 | N5 pan | L100 | BE 2C 00",
                "STRIPS_BY_CONTROLLER | 2 | 0 | 0 | -1 | 96 | 24 | N24 level | -inf | B1 77 00",
                "SCENES_BY_PROGRAM | 16 | 0 | 0 | -2 | 0 | 128 | N128 | | CF 7F",
                "SCENES_BY_PROGRAM | 1 | 1 | 0 | -2 | 1 | 10 | N10 | | C0 09",
                "SCENES_BY_PROGRAM | 3 | 1 | 8 | -2 | C5 | 4 | N2 | | C2 15",
                "LOOKS_BY_NOTE | 1 | 1 | 0 | -1 | C3 | 3 | N3 | | 90 32 7F",
                "LOOKS_BY_NOTE | 1 | 1 | 0 | 0 | C3 | 3 | N3 | | 90 26 7F",
                "CLIPS_BY_NOTE | 9 | 1 | 0 | -2 | D♯4 | 2 | Stop | | 98 4A 7F",
                "PATCHES_BY_PROGRAM | 4 | 0 | 0 | -2 | 64 | 3 | N2 | | C3 41"
            })
    void tenLayoutsSayWhatWasWorkedOutByHand(
            Family family,
            int channel,
            int programs,
            int bank,
            int octave,
            String first,
            int names,
            String phrase,
            String amount,
            String bytes) {
        Numbering numbering = new Numbering(programs, bank, Numbering.Values.FROM_0, octave, false, 1);
        Device empty = new Device(
                1,
                "It",
                Department.SOUND,
                new Connection.NetworkMidi("10.0.0.7", 5004),
                channel - 1,
                numbering,
                0,
                List.of());
        List<String> all =
                IntStream.rangeClosed(1, names).mapToObj(i -> "N" + i).toList();
        Device filled = family.fill(empty, all, first == null ? "" : first);
        assertThat(bytes(filled, phrase, amount == null ? "" : amount)).isEqualTo(bytes);
    }

    @Test
    void whatWouldReachBeyondTheLastControllerOrChannelIsRefused() {
        List<String> many = IntStream.rangeClosed(1, 25).mapToObj(i -> "N" + i).toList();
        assertThatThrownBy(() -> fill(Family.STRIPS_BY_CONTROLLER, many, "96"))
                .as("120 and above are no controllers but modes (MIDI 1.0)")
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("end at 119");
        Device last = new Device(
                1,
                "It",
                Department.SOUND,
                new Connection.NetworkMidi("10.0.0.7", 5004),
                14,
                Numbering.WIRE,
                0,
                List.of());
        assertThatThrownBy(() -> Family.STRIPS_BY_CONTROLLER.fill(last, List.of("Vox"), ""))
                .isInstanceOf(Refusal.class);
    }
}
