package underbaton.core.engine;

import java.util.List;
import java.util.Set;
import underbaton.core.engine.catchup.CatchUp;
import underbaton.core.engine.music.Playing;
import underbaton.core.plan.Plan;
import underbaton.core.plan.TimedCalls;

/**
 * GO: while a vamp goes round, it lets the music go on; else it fires the standby, behind all that the book puts before it. Used
 * once.
 */
final class Go {

    private final Parts parts;
    private final Plan plan;

    Go(Parts parts) {
        this.parts = parts;
        this.plan = parts.step.plan();
    }

    void carryOut() {
        boolean meant = parts.operator.isSecondPress();
        if (!meant && parts.operator.isTooSoon()) {
            parts.operator.ask();
            return;
        }
        boolean vamps = parts.music.playing().filter(Playing::vamping).isPresent();
        if (vamps && !parts.step.isDryRun()) {
            parts.release();
            parts.operator.gone();
            return;
        }
        int standby = parts.music.standby();
        List<TimedCalls> skipped = parts.music.state().skippedBefore(plan, standby);
        if (!meant
                && parts.operator.state().options().asks()
                && skipped.stream().anyMatch(TimedCalls::strikes)) {
            parts.operator.ask();
            return;
        }
        parts.operator.gone();
        if (parts.music.progress().held()) {
            parts.holds.goOn();
        }
        while (parts.music.followOn().isPresent()) {
            parts.cues.fireFollowOn(parts.step.now());
        }
        if (standby < plan.cues().size()) {
            bringForward(skipped);
            fire(standby);
        } else {
            parts.taking.takeOver();
        }
    }

    private void fire(int standby) {
        if (plan.beginsItem(standby)) {
            parts.cues.begin(plan.cues().get(standby).item().id(), 0);
        } else {
            parts.cues.fireFrom(standby, parts.step.now());
        }
        parts.music.standBy(plan.waitingFrom(standby + 1));
    }

    /** What the book puts before a cue comes before it: call by call, or only what is left of all of it at its end. */
    private void bringForward(List<TimedCalls> skipped) {
        if (skipped.isEmpty()) {
            return;
        }
        parts.music.without(skipped);
        if (parts.operator.state().options().sendsSkipped()) {
            skipped.forEach(t -> parts.cues.land(List.of(t), parts.step.now()));
            return;
        }
        Parts onPaper = new Parts(parts.state());
        skipped.forEach(t -> onPaper.cues.land(List.of(t), parts.step.now()));
        onPaper.calls.comeToRest();
        parts.corrections.correctAll(CatchUp.without(
                CatchUp.between(onPaper.corrections.machines(), parts.corrections.machines()), Set.of()));
    }
}
