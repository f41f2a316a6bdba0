package underbaton.web.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import underbaton.core.rig.Refusal;

class PastedNamesTest {

    @Test
    void namesAreReadAsPeoplePasteThem() {
        assertThat(PastedNames.read(
                        "  Dusk, low \r\n\n2. Gold sweep\n3)\tAmber\n4\tBlue\t90 s\n\"Red, \"\"hot\"\"\",120\n5 lamps"))
                .containsExactly("Dusk, low", "Gold sweep", "Amber", "Blue", "Red, \"hot\"", "5 lamps");
    }

    @Test
    void nothingAndFarTooMuchAreRefused() {
        assertThatThrownBy(() -> PastedNames.read(" \n ")).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> PastedNames.read("x".repeat(100_001))).isInstanceOf(Refusal.class);
    }
}
