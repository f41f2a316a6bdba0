package underbaton.core.cue;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import underbaton.core.follow.Following;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;

/**
 * One entry of the running order with its cues.
 *
 * @param id unique in the show
 * @param plannedSeconds planned length, 0–86,400 s; 0 when nobody has said
 * @param codeStart where it begins in the day of the time code, 0–86,399 s; empty for a place of its own by the running order
 * @param follows the machine by whose time it goes; empty for its own
 * @param score bars and beats, where it has any
 * @param cues in the order of their numbers
 */
public record Item(
        int id,
        ItemKind kind,
        String name,
        int plannedSeconds,
        OptionalInt codeStart,
        Optional<Following> follows,
        Optional<Score> score,
        List<Cue> cues) {

    /** The day of the time code, s. */
    public static final int DAY_SECONDS = 86_400;

    public Item {
        name = Refusal.requireName("name", name, 100);
        if (plannedSeconds < 0 || plannedSeconds > DAY_SECONDS) {
            throw new Refusal("length", "A planned length is at most 24 hours.");
        }
        if (codeStart.isPresent() && (codeStart.getAsInt() < 0 || codeStart.getAsInt() >= DAY_SECONDS)) {
            throw new Refusal("code", "A time code begins between 00:00:00 and 23:59:59.");
        }
        cues = cues.stream().sorted(Comparator.comparing(Cue::number)).toList();
    }

    /** An item whose time code begins where the running order puts it. */
    public Item(int id, ItemKind kind, String name, int plannedSeconds, Optional<Score> score, List<Cue> cues) {
        this(id, kind, name, plannedSeconds, OptionalInt.empty(), Optional.empty(), score, cues);
    }

    /** An item without a score. */
    public Item(int id, ItemKind kind, String name, int plannedSeconds, List<Cue> cues) {
        this(id, kind, name, plannedSeconds, Optional.empty(), cues);
    }

    /** The same with another score. */
    public Item withScore(Optional<Score> newScore) {
        return new Item(id, kind, name, plannedSeconds, codeStart, follows, newScore, cues);
    }

    /** The same with another beginning in the day of the time code, s; empty for that of the running order. */
    public Item withCodeStart(OptionalInt seconds) {
        return new Item(id, kind, name, plannedSeconds, seconds, follows, score, cues);
    }

    /** The same, which goes by the time of another machine, or by its own. */
    public Item withFollows(Optional<Following> newFollows) {
        return new Item(id, kind, name, plannedSeconds, codeStart, newFollows, score, cues);
    }

    Item withId(int newId) {
        return new Item(newId, kind, name, plannedSeconds, codeStart, follows, score, cues);
    }

    /** The same with other cues. */
    public Item withCues(List<Cue> newCues) {
        return new Item(id, kind, name, plannedSeconds, codeStart, follows, score, newCues);
    }

    /** The exceptions of linked sections name cues by their numbers, and follow when these change. */
    Item withNumbersFollowed(Map<CueNumber, CueNumber> changed) {
        boolean named = score.isPresent()
                && score.get().sections().stream().anyMatch(s -> !s.without().isEmpty());
        if (!named || changed.isEmpty()) {
            return this;
        }
        Map<String, String> words = new HashMap<>();
        changed.forEach((from, to) -> words.put(from.toString(), to.toString()));
        return withScore(score.map(s -> s.withSections(
                s.sections().stream().map(x -> x.withNumbersFollowed(words)).toList())));
    }
}
