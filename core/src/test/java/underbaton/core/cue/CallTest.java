package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;

/** Calls as they are typed into a cell, and as it says them. */
class CallTest {

    private final Device console = new Device(
                    3, "Console", Department.SOUND, new Connection.LocalMidi("Loop 1"), 0, Numbering.WIRE, 0, List.of())
            .withPhrase(phrase(11, "Vox 1", "control 0 to ?", "decibels"))
            .withPhrase(phrase(12, "Vox 1 reverb", "control 30 to ?", "per cent"))
            .withPhrase(phrase(16, "Vox 1 pan", "control 10 to ?", "pan"))
            .withPhrase(phrase(13, "Vox 1 mute", "control 40 to 127 | control 40 to 0", ""))
            .withPhrase(phrase(14, "Scene 9 song", "program 9", ""))
            .withPhrase(phrase(15, "Scene 10 film", "program 10", ""));

    private static Phrase phrase(int id, String name, String says, String argument) {
        return new Phrase(
                id,
                name,
                new SpeechWording(Numbering.WIRE).read(says),
                argument.isEmpty() ? Optional.empty() : Optional.of(Argument.of(argument)),
                Effect.MOMENT,
                false,
                false,
                Remarks.NONE);
    }

    private String told(Call call) {
        return console.tell(console.phrase(call.phraseId()).orElseThrow(), call.amount());
    }

    @ParameterizedTest
    @CsvSource({
        "vox 1 -10 dB, Vox 1 → −10 dB",
        "Vox 1→-6, Vox 1 → −6 dB",
        "Vox 1 -oo, Vox 1 → −∞ dB",
        "Vox 1 reverb 40 %, Vox 1 reverb → 40 %",
        "VOX 1 MUTE off, Vox 1 mute → off",
        "Vox 1 mute 1, Vox 1 mute → on",
        "Vox 1 off, Vox 1 → −∞ dB",
        "vox 1 Unity, Vox 1 → 0 dB",
        "Vox 1 pan -30, Vox 1 pan → L30",
        "Vox 1 pan 30, Vox 1 pan → R30",
        "Scene 9 song, Scene 9 song",
        "film, Scene 10 film"
    })
    void aCallIsReadAsItIsTypedAndToldInOneWay(String typed, String said) {
        Call call = Call.of(console, typed);
        assertThat(told(call)).isEqualTo(said);
        assertThat(Call.of(console, told(call))).isEqualTo(call);
        assertThat(call.names(3, call.phraseId())).isTrue();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Vox 1 -10 dB in 2 sec | Vox 1 → −10 dB in 2 s",
                "Vox 1 -10 dB over 2 s | Vox 1 → −10 dB in 2 s",
                "Vox 1 -10 dB In 2 Seconds | Vox 1 → −10 dB in 2 s",
                "Vox 1 -10 dB in 2 bars | Vox 1 → −10 dB in 2 bars",
                "Vox 1 -10 dB in 3 s, S curve | Vox 1 → −10 dB in 3 s, S-curve",
                "Vox 1 -10 dB in 3 s s-curve then Scene 9 song | Vox 1 → −10 dB in 3 s, S-curve, then Scene 9 song",
                "Vox 1 -10 dB in 3 s then Scene 9 song | Vox 1 → −10 dB in 3 s, then Scene 9 song",
                "Vox 1 off over 4 beats | Vox 1 → −∞ dB in 4 beats",
                "Vox 1 -20 dB ± 6 dB sine every 2 beats | Vox 1 → −20 dB ± 6 dB sine every 2 beats",
                "Vox 1 reverb 50 % ± 20 % sine 2 Hz | Vox 1 reverb → 50 % ± 20 % sine every 500 ms",
                "Vox 1 -10 dB after 2 seconds | Vox 1 → −10 dB @ 2 s",
                "Scene 9 song @ 1 bar | Scene 9 song @ 1 bar"
            })
    void howItGetsThereIsReadAsPeopleSayIt(String typed, String said) {
        Call call = Call.of(console, typed);
        assertThat(call.tell(console)).isEqualTo(said);
        assertThat(Call.of(console, said)).isEqualTo(call);
        assertThat(Call.parts(said + " + Scene 9 song")).containsExactly(said, "Scene 9 song");
    }

    @ParameterizedTest
    @CsvSource({
        "Vox 1 -10 dB in 3 sxx, 'Behind the amount, “in 3 sxx” cannot be read'",
        "Vox 1 -10 dB slowly, 'Behind the amount, “slowly” cannot be read'",
        "'Vox 1 -10 dB in 3 s, wobbly', “wobbly” is no way to move",
        "'Vox 1 -10 dB in 3 s, then Fog', 'has no phrase “Fog”'",
        "Vox 1 3 dB in 2 s, 'not 3 dB'"
    })
    void aRefusalNamesThePartThatIsWrong(String typed, String words) {
        assertThatThrownBy(() -> Call.of(console, typed))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words);
    }

    @ParameterizedTest
    @CsvSource({
        "Vox 1, 'takes an amount; write it behind the name, such as: -10 dB'",
        "Vox 1 mute, such as: on or off",
        "Vox 1 loud, “loud” is no amount",
        "Vox 1 3 dB, 'scale reaches from −∞ dB to 0 dB, not 3 dB'",
        "Scene 9 song → 5, takes no amount",
        "scene, Did you mean “Scene 9 song” or “Scene 10 film”",
        "harp, has no phrase “harp”"
    })
    void whatIsNotMeantIsRefused(String typed, String words) {
        assertThatThrownBy(() -> Call.of(console, typed))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words);
    }

    @Test
    void aCopyHasANameOfItsOwnAndStandsOutsideTheList() {
        Phrase copy = console.copyOf(console.phraseNamed("Vox 1").orElseThrow());
        assertThat(copy.name()).isEqualTo("Vox 1 2");
        assertThat(console.withPhrase(copy)
                        .copyOf(console.phrase(11).orElseThrow())
                        .name())
                .isEqualTo("Vox 1 3");
    }
}
