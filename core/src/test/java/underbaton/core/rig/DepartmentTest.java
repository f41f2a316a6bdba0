package underbaton.core.rig;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DepartmentTest {

    @ParameterizedTest
    @CsvSource({
        "FOH lights, LIGHTS",
        "Pedals and pads, KEYS",
        "Keys 2, KEYS",
        "Stage piano, KEYS",
        "Words screen, WORDS",
        "River screen, VIDEO",
        "Camera switcher, CAMERAS",
        "Sound console, SOUND",
        "Playback machine, SOUND",
        "Box 7, LIGHTS"
    })
    void aNameTellsWhoseAMachineIs(String name, Department department) {
        assertThat(Department.likelyOf(name)).isEqualTo(department);
    }
}
