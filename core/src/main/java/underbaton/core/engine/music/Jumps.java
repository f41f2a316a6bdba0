package underbaton.core.engine.music;

import java.util.Optional;
import underbaton.core.engine.call.Agenda;
import underbaton.core.engine.call.Calls;
import underbaton.core.engine.call.Pending;
import underbaton.core.engine.move.Moves;
import underbaton.core.engine.operator.Operator;
import underbaton.core.engine.out.StepContext;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;

/** The show goes on elsewhere, while a step is taken: jumps, and what is left behind. Not thread-safe, used once. */
public final class Jumps {

    private final StepContext step;
    private final Operator operator;
    private final Music music;
    private final Cues cues;
    private final Calls calls;
    private final Moves moves;
    private final Agenda agenda;

    /** Made anew for each step, of the parts that it asks. */
    public Jumps(StepContext step, Operator operator, Music music, Cues cues, Calls calls, Moves moves, Agenda agenda) {
        this.step = step;
        this.operator = operator;
        this.music = music;
        this.cues = cues;
        this.calls = calls;
        this.moves = moves;
        this.agenda = agenda;
    }

    /** A cue stands by; nothing is sent. @param index of it in the plan; below 0 for the one that does */
    public void standBy(int index) {
        music.standBy(index);
        operator.movedTo(true);
    }

    /**
     * An item plays from a place of it on; what comes before that place is not sent.
     *
     * @param from ns since it begins
     * @param cueId a cue that lands there, of which all that the book puts before it counts as given; 0 for none
     */
    public void play(PlannedItem item, long from, int cueId) {
        int first = step.plan().firstOf(item.item().id());
        music.follow(Optional.empty());
        calls.dropCallsOfCues();
        operator.movedTo(false);
        cues.begin(item.item().id(), Math.max(0, from));
        if (item.cues().isEmpty()) {
            music.standBy(step.plan().waitingFrom(first));
            return;
        }
        int given = from > 0 ? Music.givenAt(item, from) : 0;
        int landing = cueId == 0 ? -1 : step.plan().indexOf(cueId) - first;
        given = Math.max(given, Math.min(landing, item.cues().size()));
        music.gaveAllBefore(item, given);
        if (from <= 0 && item.cues().get(0).atNanos().isEmpty()) {
            cues.fireFrom(first, step.now());
            given = Math.max(1, given);
        }
        boolean atItsBeginning = given == 0 && step.plan().beginsItem(first);
        music.standBy(step.plan().waitingFrom(atItsBeginning ? first + 1 : first + given));
    }

    /** The music goes on from a place, as if it had been there at a moment. @param from ns since its item began */
    public void playOn(long from, long asOf) {
        music.locate(from);
        music.goOnFrom(from, asOf);
    }

    /** What plays is left: the music, what follows by itself and what is under way; a cue stands by, and nothing is sent. */
    public void leave(int cueId) {
        standBy(step.plan().indexOf(cueId));
        breakOff();
        music.leave();
    }

    /** The music stands, and nothing that it has under way goes on: for it is to go on elsewhere. Nothing is sent. */
    public void breakOff() {
        music.pause();
        music.forgetHold();
        music.follow(Optional.empty());
        moves.halt();
        calls.dropCalls();
    }

    /** Nothing new comes: what has been called is told to its end, and what is under way goes on. */
    public void leaveAlone() {
        music.stop(false);
        calls.dropCalls();
    }

    /** What the book has under way at a place comes in its time: calls that come late, and a cue that follows. */
    public void takeUp(Iterable<Agenda.Due> pending, Optional<FollowOn> followOn) {
        pending.forEach(each -> {
            if (each.what() instanceof Pending.ToCall) {
                agenda.add(each.dueNanos(), each.what());
            }
        });
        music.follow(followOn.flatMap(f -> f.in(step.plan()))
                .filter(f -> !hasBegun(f.cue()))
                .or(music::followOn));
    }

    /** Whether an item has begun, and with it the cue that opens it. */
    private boolean hasBegun(PlannedCue cue) {
        return music.progress().itemId() == cue.item().id()
                && step.plan().isFirst(step.plan().indexOf(cue));
    }
}
