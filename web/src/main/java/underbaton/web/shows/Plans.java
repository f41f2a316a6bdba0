package underbaton.web.shows;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import underbaton.core.cue.Show;
import underbaton.core.plan.Plan;
import underbaton.core.plan.Planner;

/** The newest plan of each show, so that a page that draws it after an edit works out the edited item alone. */
@Component
public class Plans {

    private final Map<Integer, Planned> newest = new ConcurrentHashMap<>();

    private record Planned(Show show, Plan plan) {}

    public Plan of(Show show) {
        Planned before = newest.get(show.id());
        if (before != null && before.show == show) {
            return before.plan;
        }
        Plan plan = Planner.plan(show, before == null ? Plan.EMPTY : before.plan);
        newest.put(show.id(), new Planned(show, plan));
        return plan;
    }
}
