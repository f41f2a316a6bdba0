package underbaton.web.view;

import java.util.List;
import java.util.Optional;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.engine.PlaybackState;
import underbaton.core.loop.Clock;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Device;

/**
 * What one camera must know: whether it is on air, whether it is the next, and when it comes.
 *
 * @param mine how it is called
 * @param switcher the machine that puts it on air
 * @param tally on air, next or clear
 * @param onAir what that machine shows now; empty where it was told nothing yet
 * @param coming when this one comes, the first first
 * @param next what comes on air next, whichever it is
 * @param standsBy whether this one comes with the next GO
 */
record CameraView(
        String mine,
        Device switcher,
        Optional<String> item,
        Tally tally,
        String onAir,
        List<Coming> coming,
        Optional<Coming> next,
        boolean standsBy,
        Optional<String> told) {

    /** As the light on a camera says it: red for on air, green for the next (common practice of the trade, no published source). */
    enum Tally {
        ON_AIR("on air"),
        NEXT("next"),
        CLEAR("clear");

        private final String words;

        Tally(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        public String key() {
            return words.replace(' ', '-');
        }
    }

    static CameraView of(Show show, PlaybackState state, Whose whose, Clock clock) {
        Device switcher = whose.device().orElseThrow();
        int mine = whose.phrase().orElseThrow().id();
        Whose any = new Whose(whose.department(), whose.device(), Optional.empty());
        List<Coming> coming = new ComingCues(show, state, whose, clock).first(2);
        Optional<Coming> next =
                new ComingCues(show, state, any, clock).first(1).stream().findFirst();
        boolean isNext = next.isPresent()
                && coming.stream().anyMatch(c -> c.label().equals(next.get().label()));
        boolean onAir = state.told().device(switcher.id()).slots().stream()
                .anyMatch(s -> s.holds() && s.call().phraseId() == mine);
        return new CameraView(
                whose.title(),
                switcher,
                state.begunItem().map(PlannedItem::item).map(Item::name).or(() -> Optional.of(show.name())),
                onAir ? Tally.ON_AIR : isNext ? Tally.NEXT : Tally.CLEAR,
                state.told()
                        .device(switcher.id())
                        .shows()
                        .map(PlannedCall::phrase)
                        .orElse(""),
                coming,
                next,
                isNext
                        && state.standbyCue()
                                .filter(c -> c.label().equals(next.get().label()))
                                .isPresent(),
                DepartmentView.told(state));
    }
}
