package underbaton.web.view;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.music.MusicState;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Device;

/**
 * The standby in full, for who calls the show with a phone in one hand.
 *
 * @param standby number of the cue that stands by; empty at the end of the book
 * @param comes how it comes: at GO, or by itself when its song begins
 * @param last number of the cue given last
 * @param told what is not as usual, in words
 */
record CallView(
        Optional<String> item,
        String standby,
        String what,
        String comes,
        List<Said> said,
        String last,
        String next,
        Optional<String> told) {

    /** What a machine gets. */
    record Said(Device device, String phrase) {}

    static CallView of(Show show, PlaybackState state) {
        Optional<PlannedCue> cue = state.standbyCue();
        int next = state.plan().waitingFrom(state.standby() + 1);
        List<PlannedCue> cues = state.plan().cues();
        return new CallView(
                state.begunItem().map(PlannedItem::item).map(Item::name).or(() -> Optional.of(show.name())),
                cue.map(PlannedCue::label).orElse(""),
                cue.map(PlannedCue::what).orElse(""),
                cue.map(c -> comes(state, c)).orElse(""),
                cue.map(c -> said(state, c)).orElse(List.of()),
                state.last().map(MusicState.Fired::cue).map(PlannedCue::label).orElse(""),
                next < cues.size() ? cues.get(next).label() : "",
                DepartmentView.told(state));
    }

    private static String comes(PlaybackState state, PlannedCue cue) {
        if (!cue.armed()) {
            return "out tonight: GO sends nothing of it";
        }
        return state.plan().beginsItem(state.standby())
                ? "GO starts the " + cue.item().kind().word()
                : "";
    }

    private static List<Said> said(PlaybackState state, PlannedCue cue) {
        return state.plan().devices().stream()
                .map(d -> new Said(
                        d,
                        cue.calls().stream()
                                .filter(c -> c.deviceId() == d.id())
                                .map(PlannedCall::phrase)
                                .collect(Collectors.joining(" + "))))
                .filter(s -> !s.phrase.isEmpty())
                .toList();
    }
}
