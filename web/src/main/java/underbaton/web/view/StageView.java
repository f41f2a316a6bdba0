package underbaton.web.view;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import underbaton.core.cue.PlannedLength;
import underbaton.core.cue.Show;
import underbaton.core.engine.PlaybackState;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Department;
import underbaton.core.timings.Timings;

/**
 * All departments at a glance, for who calls the show: what each gets next, with the words by which it is called.
 *
 * @param standby the cue that comes with the next GO; empty at the end
 * @param over by how much the items are over or under, in words; empty where nobody knows
 */
record StageView(
        Optional<String> item, String standby, List<DepartmentView> departments, String over, Optional<String> told) {

    static StageView of(Show show, PlaybackState state, Optional<Timings> timings, Clock clock) {
        List<DepartmentView> all = Arrays.stream(Department.values())
                .filter(d -> state.plan().devices().stream().anyMatch(m -> m.department() == d))
                .map(d -> DepartmentView.of(show, state, new Whose(d, Optional.empty(), Optional.empty()), clock))
                .toList();
        Optional<DepartmentView> any = all.stream().findFirst();
        return new StageView(
                any.flatMap(DepartmentView::item),
                state.standbyCue()
                        .map(c -> c.label() + (c.what().isEmpty() ? "" : ", " + c.what()))
                        .orElse(""),
                all,
                timings.map(StageView::words).orElse(""),
                any.flatMap(DepartmentView::told));
    }

    private static String words(Timings timings) {
        int seconds = (int) Math.round(timings.overMicros() / 1e6);
        return seconds == 0 ? "on time" : PlannedLength.tell(Math.abs(seconds)) + (seconds > 0 ? " over" : " under");
    }

    /** The departments that get something with the next GO, as they are called: {@code LX 32, VD 32}. */
    public String calls() {
        return departments.stream()
                .filter(DepartmentView::standsBy)
                .map(d -> d.department().code() + " " + d.coming().get(0).label())
                .reduce((a, b) -> a + ", " + b)
                .orElse("");
    }
}
