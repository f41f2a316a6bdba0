package underbaton.web.kernel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import underbaton.core.rig.Refusal;

class TypedTest {

    @Test
    void numbersMayHaveARealMinus() {
        assertThat(Typed.number("octave", " −2 ")).isEqualTo(-2);
        assertThatThrownBy(() -> Typed.number("port", "")).hasMessageContaining("it is empty");
        assertThatThrownBy(() -> Typed.number("port", "99999999999")).isInstanceOf(Refusal.class);
    }
}
