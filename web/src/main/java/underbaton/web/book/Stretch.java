package underbaton.web.book;

import java.util.Collections;
import java.util.List;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Show;
import underbaton.core.rig.Refusal;

/**
 * Cues that stand one below the other.
 *
 * @param from id of the cue at one end
 * @param to id of the cue at the other
 */
record Stretch(int from, int to) {

    /** @throws Refusal when one of its ends is gone */
    List<Cue> cues(Show show) {
        List<Cue> all = show.cues().toList();
        List<Integer> ids = all.stream().map(Cue::id).toList();
        List<Integer> ends = List.of(ids.indexOf(from), ids.indexOf(to));
        if (Collections.min(ends) < 0) {
            throw new Refusal("cue", "One of these cues is no longer in the book; choose them again.");
        }
        return all.subList(Collections.min(ends), Collections.max(ends) + 1);
    }
}
