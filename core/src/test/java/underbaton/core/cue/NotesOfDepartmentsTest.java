package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import underbaton.core.rig.Department;
import underbaton.core.rig.Remarks.Mark;

/** A note says something to all, and something to a department alone. */
class NotesOfDepartmentsTest {

    private static String read(String note, Department department) {
        return new Cue(0, CueNumber.of("1"), Start.of("by hand"), "", List.of(), 0)
                .withRemarks(Mark.NONE, note)
                .noteFor(department);
    }

    @Test
    void eachReadsWhatIsForAllAndWhatIsItsOwn() {
        String note = "Slower tonight; CM: close on the oar; lx : haze\nLX: watch the bow";
        assertThat(read(note, Department.CAMERAS)).isEqualTo("Slower tonight; close on the oar; lx : haze");
        assertThat(read(note, Department.LIGHTS)).isEqualTo("Slower tonight; lx : haze; watch the bow");
        assertThat(read("cm:  close ; ;", Department.CAMERAS)).isEqualTo("close");
        assertThat(read("cm:  close ; ;", Department.SOUND)).isEmpty();
        assertThat(read("", Department.SOUND)).isEmpty();
        assertThat(read("At 8:15 the bell", Department.SOUND)).isEqualTo("At 8:15 the bell");
    }
}
