package underbaton.core.cue;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;

/**
 * One entry of the running order with its cues.
 *
 * @param id unique in the show
 * @param plannedSeconds planned length, 0–86,400 s; 0 when nobody has said
 * @param score bars and beats, where it has any
 * @param cues in the order of their numbers
 */
public record Item(int id, ItemKind kind, String name, int plannedSeconds, Optional<Score> score, List<Cue> cues) {

    public Item {
        name = Refusal.requireName("name", name, 100);
        if (plannedSeconds < 0 || plannedSeconds > 86_400) {
            throw new Refusal("length", "A planned length is at most 24 hours.");
        }
        cues = cues.stream().sorted(Comparator.comparing(Cue::number)).toList();
    }

    /** An item without a score. */
    public Item(int id, ItemKind kind, String name, int plannedSeconds, List<Cue> cues) {
        this(id, kind, name, plannedSeconds, Optional.empty(), cues);
    }

    /** The same with another score. */
    public Item withScore(Optional<Score> newScore) {
        return new Item(id, kind, name, plannedSeconds, newScore, cues);
    }

    Item withId(int newId) {
        return new Item(newId, kind, name, plannedSeconds, score, cues);
    }

    /** The same with other cues. */
    public Item withCues(List<Cue> newCues) {
        return new Item(id, kind, name, plannedSeconds, score, newCues);
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
