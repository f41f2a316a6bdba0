package underbaton.web.library;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.web.library.ShowParts.Key;
import underbaton.web.library.ShowParts.Part;

/**
 * One step of a show taken back, or done again, while what came after it stays: the parts that the step has changed become what they were
 * on its other side. A pure function.
 */
final class Merge {

    private final Map<Key, Part> now;
    private final Map<Key, Part> from;
    private final Map<Key, Part> to;

    private Merge(Map<Key, Part> now, Map<Key, Part> from, Map<Key, Part> to) {
        this.now = now;
        this.from = from;
        this.to = to;
    }

    /**
     * @param now as the show is
     * @param from the side of the step on which it is
     * @param to the other side
     * @throws Refusal naming a part that somebody has changed since
     */
    static Show of(Show now, Show from, Show to) {
        Map<Key, Part> merged =
                new Merge(new ShowParts(now).parts(), new ShowParts(from).parts(), new ShowParts(to).parts()).merged();
        boolean renamed = !from.name().equals(to.name());
        if (renamed && !now.name().equals(from.name())) {
            throw changedSince("the show’s name");
        }
        Show show = ShowParts.of(renamed ? now.renamed(to.name()) : now, merged);
        requireApart(show);
        return show;
    }

    private Map<Key, Part> merged() {
        Map<Key, Part> parts = new LinkedHashMap<>(now);
        Set<Key> keys = new HashSet<>(from.keySet());
        keys.addAll(to.keySet());
        boolean moved = false;
        for (Key key : keys) {
            Part one = from.get(key);
            Part other = to.get(key);
            moved |= one != null && other != null && one.place() != other.place();
            if (says(one, other)) {
                continue;
            }
            if (!says(now.get(key), one)) {
                throw changedSince(words(key, one == null ? other : one));
            }
            if (other == null) {
                parts.remove(key);
            } else {
                parts.put(key, other);
            }
        }
        for (Part part : parts.values()) {
            if (part.parent() != 0 && parts.keySet().stream().noneMatch(k -> k.id() == part.parent())) {
                throw changedSince("what it stands in");
            }
        }
        return inOrder(parts, moved ? to : now, moved ? now : to);
    }

    /** Whether two parts say the same, wherever they stand and whoever wrote them last. */
    private static boolean says(Part one, Part other) {
        return one == null || other == null
                ? one == other
                : one.parent() == other.parent() && one.plain().equals(other.plain());
    }

    /** In the order of one state; what that has not comes behind what it followed in the other. */
    private static Map<Key, Part> inOrder(Map<Key, Part> parts, Map<Key, Part> main, Map<Key, Part> other) {
        List<Key> order = new ArrayList<>(main.keySet());
        order.retainAll(parts.keySet());
        Key before = null;
        for (Key key : other.keySet()) {
            if (parts.containsKey(key) && !order.contains(key)) {
                order.add(order.indexOf(before) + 1, key);
            }
            before = parts.containsKey(key) ? key : before;
        }
        Map<Key, Part> ordered = new LinkedHashMap<>();
        order.forEach(key -> ordered.put(key, parts.get(key)));
        return ordered;
    }

    private static String words(Key key, Part part) {
        Object value = part.value();
        return value instanceof Cue cue
                ? "cue " + cue.number()
                : value instanceof Phrase phrase
                        ? "the phrase “" + phrase.name() + "”"
                        : value instanceof Device device ? device.name() : "the same " + key.kind();
    }

    private static Refusal changedSince(String what) {
        return new Refusal(
                "",
                "This cannot be taken back by itself: " + what
                        + " was changed since on another screen. Undo it there first, or write it as you want it. The next undo takes"
                        + " back what you did before.");
    }

    private static void requireApart(Show show) {
        Set<String> names = new HashSet<>();
        for (Device device : show.devices()) {
            Set<String> phrases = new HashSet<>();
            boolean apart = names.add(device.name().toLowerCase(Locale.ROOT));
            for (Phrase phrase : device.phrases()) {
                apart &= phrases.add(phrase.name().toLowerCase(Locale.ROOT));
            }
            if (!apart) {
                throw changedSince("a name in " + device.name());
            }
        }
    }
}
