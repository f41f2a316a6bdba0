package underbaton.web.view;

import java.util.List;
import java.util.Optional;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.music.Playing;
import underbaton.core.loop.Clock;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;

/**
 * What a department has now and what it gets next, as the show stands.
 *
 * @param whose the department, or one machine of it, in words
 * @param item that plays, or began last
 * @param now what each machine shows
 * @param coming the next that it gets, the first first
 * @param standsBy whether the next of it comes with the next GO
 * @param given the cue of it that was given last
 * @param note what that cue tells this department besides
 * @param givenEpochMs when
 * @param told what is not as usual, in words: held, stopped, jumped
 */
record DepartmentView(
        Department department,
        String whose,
        Optional<String> item,
        List<Now> now,
        List<Coming> coming,
        boolean standsBy,
        String given,
        String note,
        long givenEpochMs,
        Optional<String> told) {

    private static final int MOST_COMING = 3;

    /** @param phrase empty where it was told nothing yet */
    record Now(Device device, String phrase) {}

    static DepartmentView of(Show show, PlaybackState state, Whose whose, Clock clock) {
        List<Now> now = whose.devices(state.plan()).stream()
                .map(d -> new Now(
                        d,
                        state.told()
                                .device(d.id())
                                .shows()
                                .map(PlannedCall::phrase)
                                .orElse("")))
                .toList();
        List<Coming> coming = new ComingCues(show, state, whose, clock).first(MOST_COMING);
        boolean standsBy = !coming.isEmpty()
                && state.standbyCue()
                        .filter(c -> c.label().equals(coming.get(0).label()))
                        .isPresent();
        Optional<PlannedCue> last = state.last().map(f -> f.cue()).filter(c -> !whose.words(c, state.plan())
                .isEmpty());
        return new DepartmentView(
                whose.department(),
                whose.title(),
                state.begunItem().map(PlannedItem::item).map(Item::name).or(() -> Optional.of(show.name())),
                now,
                coming,
                standsBy,
                last.map(PlannedCue::label).orElse(""),
                last.map(c -> ComingCues.note(show, c, whose)).orElse(""),
                last.flatMap(c -> state.last())
                        .map(f -> clock.epochMicrosAt(f.atNanos()) / 1000)
                        .orElse(0L),
                told(state));
    }

    static Optional<String> told(PlaybackState state) {
        if (state.progress().held()) {
            return Optional.of("held: the band has stopped");
        } else if (state.stopped()) {
            return Optional.of("stopped");
        } else if (state.playing().filter(Playing::paused).isPresent()) {
            return Optional.of("paused");
        }
        return state.operator().moved()
                ? Optional.of("jumped: the standby is not where the show stands")
                : Optional.empty();
    }
}
