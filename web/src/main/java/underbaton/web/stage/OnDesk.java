package underbaton.web.stage;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import underbaton.core.cue.Show;
import underbaton.core.engine.DryRun;
import underbaton.core.engine.RunSnapshot;
import underbaton.core.perform.Performer;
import underbaton.core.perform.PerformerThread;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.Plan;

/** The show on the desk: who plays it, the book it is played from, what is out tonight, and the edits that wait. */
final class OnDesk {

    private static final int MOST_TROUBLES = 5;

    final int showId;
    final Performer performer;
    final PerformerThread thread;
    /** How it stood when a crash came, if it was put on the desk after one. */
    final Optional<RunSnapshot> left;
    /** Whether anybody has given an order since it was put here. */
    volatile boolean touched;
    /** As it is played. */
    volatile Show show;
    /** Whether the machines may not be as the book says since the book was changed under the show. */
    volatile boolean bookChanged;

    /** The book as it is played, with all that is out tonight. */
    volatile Plan base;

    volatile OutTonight out;
    private volatile List<String> waiting = List.of();
    private volatile List<String> troubles = List.of();
    private DryRun run;

    OnDesk(
            Show show,
            Plan base,
            OutTonight out,
            Performer performer,
            PerformerThread thread,
            Optional<RunSnapshot> left,
            DryRun run) {
        this.base = base;
        this.out = out;
        this.showId = show.id();
        this.show = show;
        this.performer = performer;
        this.thread = thread;
        this.left = left;
        this.run = run;
    }

    /** In words, what could not be done and nobody has said to have seen, the last first. */
    List<String> troubles() {
        return troubles;
    }

    /** The operator is to know it; the oldest of many is left to the log. */
    synchronized void trouble(String words) {
        List<String> all = new ArrayList<>(troubles);
        all.remove(words);
        all.add(0, words);
        troubles = List.copyOf(all.subList(0, Math.min(MOST_TROUBLES, all.size())));
    }

    synchronized void troublesSeen() {
        troubles = List.of();
    }

    /** In words, the edits that were made and are not yet taken over. */
    List<String> waiting() {
        return waiting;
    }

    void await(String edit) {
        List<String> more = new ArrayList<>(waiting);
        more.add(edit);
        waiting = List.copyOf(more);
    }

    void taken(Show changed, Plan plan) {
        show = changed;
        base = plan;
        waiting = List.of();
    }

    /** What the book that is played from says. */
    synchronized DryRun dryRun() {
        Plan now = performer.state().plan();
        if (run.plan() != now) {
            run = DryRun.of(now, run);
        }
        return run;
    }
}
