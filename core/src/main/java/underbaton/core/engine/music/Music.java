package underbaton.core.engine.music;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Supplier;
import underbaton.core.engine.device.DeviceStates;
import underbaton.core.engine.music.MusicState.Fired;
import underbaton.core.engine.operator.Operator;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.StepContext;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.TimedCalls;

/**
 * Where the show stands in its book while a step is taken: the standby, the music and what of it comes next. It says when
 * something comes; {@link Cues} carry it out. Not thread-safe, used once.
 */
public final class Music {

    private final StepContext step;
    private final Operator operator;
    private int standby;
    private Optional<Fired> last;
    private Optional<FollowOn> followOn;
    private Optional<Playing> playing;
    private ItemProgress progress;
    private boolean stopped;

    /** Made anew for each step, of the parts that it asks. */
    public Music(StepContext step, Operator operator, MusicState before) {
        this.step = step;
        this.operator = operator;
        standby = before.standby();
        last = before.last();
        followOn = before.followOn();
        playing = before.playing();
        progress = before.progress();
        stopped = before.stopped();
    }

    /** The part's own record as it stands now: what the next step begins with. */
    public MusicState state() {
        return new MusicState(standby, last, followOn, playing, progress, stopped);
    }

    /** The place of the next cue in the plan. */
    public int standby() {
        return standby;
    }

    /** The music that plays or is held. */
    public Optional<Playing> playing() {
        return playing;
    }

    /** The cue that comes by itself after another one. */
    public Optional<FollowOn> followOn() {
        return followOn;
    }

    /** What has been given in the item in which the show stands. */
    public ItemProgress progress() {
        return progress;
    }

    /** The item that plays; 0 for none. */
    public int playingItemId() {
        return playing.map(p -> p.item().item().id()).orElse(0);
    }

    /** The item of the standby cue; 0 at the end of the book. */
    public int standbyItemId() {
        List<PlannedCue> cues = step.plan().cues();
        return standby < cues.size() ? cues.get(standby).item().id() : 0;
    }

    // ---- when something comes

    /** A dry run plays one item; with what comes by itself behind it, the next one begins. */
    public long nextFollow() {
        if (followOn.isEmpty()) {
            return StepContext.NEVER;
        }
        FollowOn f = followOn.get();
        boolean leaves = step.isDryRun()
                && progress.itemId() != 0
                && progress.itemId() != f.cue().item().id();
        return leaves ? StepContext.NEVER : f.dueNanos();
    }

    /** When something of the item that plays comes: calls, a turn of its vamp, its end; far away for never. */
    public long nextOfPlaying() {
        return playing.isEmpty() ? StepContext.NEVER : playing.get().nextNanos(step.isDryRun());
    }

    /** What comes of the item that plays at a moment and is to be landed; where nothing is, it turns, or is over. */
    List<TimedCalls> take(long due, Supplier<DeviceStates> told) {
        Playing p = playing.orElseThrow();
        List<TimedCalls> coming = p.comingAt(due, step.isDryRun());
        if (!coming.isEmpty()) {
            playing = Optional.of(p.telling(coming, told));
        } else if (p.overAt(due)) {
            playing = Optional.empty();
            step.happens(new Happening.Ended(p.item(), Math.max(due, step.now())));
        } else {
            playing = Optional.of(p.turned(due, step.isDryRun()));
            step.happens(new Happening.Turned(due));
        }
        return coming;
    }

    /** These come otherwise. */
    public void without(List<TimedCalls> taken) {
        playing = playing.map(p -> p.without(taken));
    }

    // ---- the standby, and what follows

    /** @param index place of a cue in the plan, or the number of cues; below 0 for where it is */
    public void standBy(int index) {
        standby = index < 0 ? standby : index;
    }

    /** A cue comes by itself behind one that was given, though it may have come before. */
    void await(FollowOn cue) {
        followOn = Optional.of(cue);
        progress = progress.without(cue.cue());
    }

    /** @param cue that comes by itself from now on, in the place of the one that would have */
    public void follow(Optional<FollowOn> cue) {
        followOn = cue;
    }

    /** A cue was given. @param at when, by the clock of the events */
    void fired(PlannedCue cue, long at) {
        if (!step.isDryRun()) {
            long position = playing.map(p -> p.position(at)).orElse(at - progress.nanos());
            progress =
                    progress.gave(cue, position, playing.map(p -> p.stood(at)).orElse(0L));
        }
        last = cue.armed() ? Optional.of(new Fired(cue, at)) : last;
    }

    /** Stop all is no longer the last thing done. */
    void goesOn() {
        stopped = false;
    }

    // ---- the item that plays

    /** An item's music begins. @param at when, by the clock of the events */
    void begin(Playing begins, long at) {
        PlannedItem item = begins.item();
        Playing limited = step.isDryRun() ? begins.below(step.straightUntil()) : begins;
        playing = Optional.of(limited.pace(operator.paceOf(item.item().id()), at));
        progress = ItemProgress.of(item.item().id(), at);
        step.happens(new Happening.Began(item, at));
    }

    /** The first so many cues of an item count as given. */
    void gaveAllBefore(PlannedItem item, int order) {
        progress = progress.gaveAllBefore(item, order);
    }

    /** The clock of the music stands; nothing is told to machines by this. */
    public void pause() {
        playing = playing.map(p -> p.paused() ? p : p.pause(step.now()));
    }

    void resume() {
        playing = playing.map(p -> p.resume(step.now()));
    }

    /** @param nanos earlier for the performers, or, below 0, later */
    public void nudge(long nanos) {
        playing = playing.map(p -> p.nudge(nanos, step.now()));
    }

    /** Somebody else leads it: it is at a place now, ns, and goes so fast; the tempo that the operator has set stays his. */
    public void led(long position, int permille) {
        playing = playing.map(p -> p.led(position, permille, step.now()));
    }

    /** Lets the vamp that goes round be left. @return what was told for a pass that does not come now */
    public Optional<InVain> release() {
        VampRun before = playing.map(Playing::vampRun).orElse(VampRun.NONE);
        playing = playing.map(p -> p.release(step.now()));
        boolean leaves = playing.filter(Playing::released).isPresent();
        return before.before()
                .filter(b -> leaves)
                .map(b -> new InVain(
                        before.told().stream().flatMap(t -> t.calls().stream()).toList(), b));
    }

    /** @param permille 1,000 being as written */
    public void pace(int permille) {
        playing = playing.map(p -> p.pace(permille, step.now()));
        keepPace();
    }

    /** So many thousandths faster or slower than it is played now. */
    public void paceBy(int permille) {
        playing.ifPresent(p -> pace(p.anchor().permille() + permille));
    }

    /** One beat of the tempo, as it is heard. */
    public void tap() {
        OptionalLong beat = operator.tap();
        if (beat.isPresent()) {
            playing = playing.map(p -> p.tapped(beat.getAsLong(), step.now()));
            keepPace();
        }
    }

    private void keepPace() {
        playing.ifPresent(p -> operator.pace(p.item().item().id(), p.anchor().permille()));
    }

    /** To another place of it: what waited in a hold belongs to the place that is left. @param to ns since it began */
    public void locate(long to) {
        if (playing.isEmpty()) {
            return;
        }
        Playing p = playing.get();
        boolean back = to < p.position(step.now());
        playing = Optional.of(p.locate(to, step.now()));
        progress = progress.held() ? progress.holding(Suspended.nothing(step.now())) : progress;
        progress = back ? progress.withoutFrom(p.item(), p.item().behind(to)) : progress;
        progress = to > 0 ? progress.gaveAllBefore(p.item(), givenAt(p.item(), to)) : progress;
    }

    /** How many of its cues, in the order of the book, have been given at a place behind its beginning: the opening one at least. */
    static int givenAt(PlannedItem item, long from) {
        return Math.max(item.behind(from), Math.min(1, item.cues().size()));
    }

    /** It goes on from a place, as if it had been there at a moment. */
    void goOnFrom(long position, long asOf) {
        playing = playing.map(p -> p.resume(step.now()).placed(position, asOf));
        progress = progress.goingOn();
    }

    // ---- what breaks it off

    /** The band has stopped. @param what waits */
    void hold(Suspended what) {
        progress = progress.holding(what);
    }

    void endHold() {
        progress = progress.goingOn();
    }

    /** It goes on elsewhere, so what a hold keeps is forgotten. */
    void forgetHold() {
        progress = progress.held() ? progress.holding(Suspended.nothing(step.now())) : progress;
    }

    /** Nothing plays any more, and nothing follows. @param all whether by stop all */
    public void stop(boolean all) {
        playing = Optional.empty();
        followOn = Optional.empty();
        stopped |= all;
    }

    /** Nothing plays any more. */
    void leave() {
        playing = Optional.empty();
        progress = progress.goingOn();
    }

    // ---- another book

    /** It plays on from a changed book; the standby stays on its cue, or on the one that took its place. @param before the book */
    public void adopt(Plan before) {
        Plan changed = step.plan();
        playing = playing.flatMap(
                p -> changed.item(p.item().item().id()).map(item -> item == p.item() ? p : p.adopt(item, step.now())));
        standby = standbyIn(changed, before.cues());
        if (!before.out().equals(changed.out())) {
            standby = standbyAfter(before.out());
        }
        followOn = followOn.flatMap(f -> f.in(changed));
    }

    /** Its own cue, or the first behind it that is left. */
    private int standbyIn(Plan changed, List<PlannedCue> before) {
        for (int i = standby; i < before.size(); i++) {
            int place = changed.indexOf(before.get(i));
            if (place >= 0) {
                return i == standby ? place : changed.waitingFrom(place);
            }
        }
        boolean atTheEnd = standby == before.size() && !before.isEmpty();
        return changed.waitingFrom(
                before.isEmpty()
                        ? 0
                        : atTheEnd
                                ? Math.min(standby, changed.cues().size())
                                : changed.cues().size());
    }

    /** A standby that is taken out gives way to the next cue; one that is put back and was not yet reached stands by again. */
    private int standbyAfter(OutTonight before) {
        Plan plan = step.plan();
        int from = last.map(l -> plan.indexOf(l.cue()) + 1).orElse(0);
        for (int i = plan.waitingFrom(from); i < standby; i = plan.waitingFrom(i + 1)) {
            PlannedCue cue = plan.cues().get(i);
            if (before.cues().contains(cue.cueId())
                    || before.items().contains(cue.item().id())) {
                return i;
            }
        }
        return plan.waitingFrom(standby);
    }
}
