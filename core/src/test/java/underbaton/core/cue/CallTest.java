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
