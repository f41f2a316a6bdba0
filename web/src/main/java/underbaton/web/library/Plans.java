package underbaton.web.library;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import underbaton.core.cue.Show;
import underbaton.core.engine.DryRun;
import underbaton.core.plan.Plan;
import underbaton.core.plan.Planner;

/**
 * The newest plan of each show and its dry run, so that a page that draws them after an edit works out the edited item
 * alone.
 */
@Component
public class Plans {

    private final Map<Integer, Planned> newest = new ConcurrentHashMap<>();
    private final Map<Integer, DryRun> runs = new ConcurrentHashMap<>();

    private final Map<Integer, Known> known = new ConcurrentHashMap<>();

    private record Planned(Show show, Plan plan) {}

    private record Known(DryRun run, Plan plan) {}

    public Plan of(Show show) {
        Planned before = newest.get(show.id());
        if (before != null && before.show == show) {
            return before.plan;
        }
        Plan plan = Planner.plan(show, before == null ? Plan.EMPTY : before.plan);
        newest.put(show.id(), new Planned(show, plan));
        return plan;
    }

    public DryRun dryRun(Show show) {
        Plan plan = of(show);
        DryRun before = runs.get(show.id());
        if (before != null && before.plan() == plan) {
            return before;
        }
        DryRun run = before == null ? DryRun.of(plan) : DryRun.of(plan, before);
        runs.put(show.id(), run);
        return run;
    }

    /** The plan as it is played: it knows where moves begin on machines that have been told nothing. */
    public Plan knowing(Show show) {
        DryRun run = dryRun(show);
        Known before = known.get(show.id());
        if (before != null && before.run == run) {
            return before.plan;
        }
        Plan plan = run.knowing();
        known.put(show.id(), new Known(run, plan));
        return plan;
    }
}
