package underbaton.web.library;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import underbaton.core.cue.Show;

/**
 * What can be taken back and done again of one show, newest first; each step belongs to the browser that did it. Guarded by the lock of its
 * show.
 */
public final class History {

    private static final int MOST = 200;

    /** Back, or forward again. */
    enum Way {
        UNDO,
        REDO;

        String word() {
            return this == UNDO ? "undo" : "redo";
        }

        private Way other() {
            return this == UNDO ? REDO : UNDO;
        }
    }

    /**
     * @param who did it
     * @param what the edit in a few words
     * @param from the state on this side of it
     * @param to the state on its other side
     */
    record Step(String who, String what, Show from, Show to) {

        /** What the house did, anybody may take back. */
        private boolean isOf(String whose) {
            return who.equals(whose) || who.equals(Who.NOBODY);
        }
    }

    /** What was taken back or done again last, for those at other screens. @param revision of the show then */
    public record Told(String who, String words, long revision) {}

    private final Map<Way, Deque<Step>> steps = new EnumMap<>(Way.class);
    private Told told = new Told(Who.NOBODY, "", 0);

    History() {
        for (Way way : Way.values()) {
            steps.put(way, new ArrayDeque<>());
        }
    }

    /** An edit: what its author had taken back can be done again no longer. */
    void did(String who, String what, Show before, Show after) {
        push(Way.UNDO, new Step(who, what, after, before));
        steps.get(Way.REDO).removeIf(s -> s.isOf(who));
    }

    /** The step that comes next for somebody. The house itself takes back what was done last, whoever did it. */
    Optional<Step> next(Way way, String who) {
        return steps.get(way).stream()
                .filter(s -> who.equals(Who.NOBODY) || s.isOf(who))
                .findFirst();
    }

    /** A step has been taken, and can be taken the other way now. */
    void took(Way way, Step step) {
        steps.get(way).removeIf(s -> s == step);
        push(way.other(), new Step(step.who, step.what, step.to, step.from));
    }

    /** A step that cannot be taken back by itself does not stand in the way of those before it: they come first from now on. */
    void later(Way way, Step step) {
        steps.get(way).removeIf(s -> s == step);
        steps.get(way).addLast(step);
    }

    private void push(Way way, Step step) {
        Deque<Step> all = steps.get(way);
        all.push(step);
        while (all.size() > MOST) {
            all.removeLast();
        }
    }

    /** By browser, what comes next for it; those who did nothing themselves stand under {@link Who#NOBODY}. */
    Map<String, String> words(Way way) {
        Map<String, String> words = new HashMap<>();
        steps.get(way).forEach(step -> first(way, step.who).ifPresent(s -> words.putIfAbsent(step.who, s.what)));
        return words;
    }

    private Optional<Step> first(Way way, String own) {
        return steps.get(way).stream().filter(s -> s.isOf(own)).findFirst();
    }

    Told told() {
        return told;
    }

    void tell(Told now) {
        told = now;
    }
}
