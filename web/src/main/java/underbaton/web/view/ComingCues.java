package underbaton.web.view;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import underbaton.core.cue.Show;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.music.FollowOn;
import underbaton.core.engine.music.Playing;
import underbaton.core.loop.Clock;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.TimedCalls;

/** What comes to those of whom a view is: by itself while the item plays, behind another cue, or at a GO. */
final class ComingCues {

    /** How far it is looked ahead for something that is rarely called. */
    private static final int FARTHEST = 500;

    private final Show show;
    private final PlaybackState state;
    private final Whose whose;
    private final Clock clock;
    private final Map<Integer, Coming> byPlace = new TreeMap<>();

    ComingCues(Show show, PlaybackState state, Whose whose, Clock clock) {
        this.show = show;
        this.state = state;
        this.whose = whose;
        this.clock = clock;
    }

    /** The first of them, in the order of the book; but what comes by itself comes before what waits for GO. */
    List<Coming> first(int most) {
        Optional<Playing> playing = state.playing();
        playing.ifPresent(p -> p.ahead().stream().filter(TimedCalls::strikes).forEach(t -> timed(p, t)));
        state.followOn().ifPresent(f -> put(f.cue(), f.cue().start().toString(), -1, epochMs(f)));
        int itemId = playing.map(p -> p.item().item().id()).orElse(0);
        List<PlannedCue> cues = state.plan().cues();
        int end = Math.min(cues.size(), state.standby() + FARTHEST);
        for (int i = state.standby(); i < end && byPlace.size() < 2 * most; i++) {
            PlannedCue cue = cues.get(i);
            if (cue.atNanos().isEmpty() || cue.item().id() != itemId) {
                put(cue, byHand(cue, i), -1, 0);
            }
        }
        List<Coming> all = new ArrayList<>(byPlace.values());
        if (playing.filter(p -> !p.vamping()).isPresent()) {
            all.sort((a, b) -> Boolean.compare(isAwaited(a), isAwaited(b)));
        }
        return all.stream().limit(most).toList();
    }

    private static boolean isAwaited(Coming coming) {
        return coming.atMs() < 0 && coming.epochMs() == 0;
    }

    private void timed(Playing p, TimedCalls t) {
        String starts = p.item().starts(t.cue());
        boolean waits = p.waitsForRelease(t);
        put(t.cue(), waits ? starts + ", when the vamp is left" : starts, waits ? -1 : t.nanos() / 1_000_000, 0);
    }

    private long epochMs(FollowOn follows) {
        return clock.epochMicrosAt(follows.dueNanos()) / 1000;
    }

    private String byHand(PlannedCue cue, int place) {
        if (cue.byHand()) {
            return place == state.standby() ? "at GO" : "at a later GO";
        }
        return state.plan()
                .item(cue.item().id())
                .map(i -> i.starts(cue))
                .orElse(cue.start().toString());
    }

    private void put(PlannedCue cue, String when, long atMs, long epochMs) {
        String words = whose.words(cue, state.plan());
        if (!words.isEmpty() && cue.armed()) {
            byPlace.putIfAbsent(
                    state.plan().indexOf(cue),
                    new Coming(cue.label(), words, cue.what(), note(show, cue, whose), when, atMs, epochMs));
        }
    }

    /** What a cue tells them besides. */
    static String note(Show show, PlannedCue cue, Whose whose) {
        return show.cue(cue.cueId()).map(c -> c.noteFor(whose.department())).orElse("");
    }
}
