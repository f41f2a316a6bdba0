package underbaton.web.library;

import java.util.Optional;
import underbaton.core.cue.Show;
import underbaton.core.rig.Department;

/**
 * What the shelf shows of a show.
 *
 * @param show empty when it cannot be read
 * @param trouble what is wrong with it; empty for nothing
 */
public record Spine(int id, String name, Optional<Show> show, String trouble) {

    /** How many machines of a department it has. */
    public long count(Department department) {
        return show.stream()
                .flatMap(s -> s.devices().stream())
                .filter(d -> d.department() == department)
                .count();
    }
}
