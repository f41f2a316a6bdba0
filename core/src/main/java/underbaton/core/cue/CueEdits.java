package underbaton.core.cue;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import underbaton.core.rig.Refusal;

/**
 * Edits of a show's cues. At all times a number stands once in the book, a cue that says what it said keeps its version, and whoever names
 * a cue by its number (exceptions of linked sections) follows it.
 */
final class CueEdits {

    private final Show show;

    CueEdits(Show show) {
        this.show = show;
    }

    /** @param cue a new one (id 0), or another in place of the one with the same id, wherever that stands */
    Show put(int itemId, Cue cue) {
        show.requireItem(itemId);
        boolean added = cue.id() == 0;
        int cueId = added ? show.nextId() : cue.id();
        Cue old = null;
        Item holding = null;
        for (Item item : show.items()) {
            for (Cue each : item.cues()) {
                if (each.id() == cueId) {
                    old = each;
                    holding = item;
                } else if (each.number().equals(cue.number())) {
                    throw numberTaken(each.number());
                }
            }
        }
        Cue placed = cue.withId(cueId).withVersion(show.revision() + 1);
        Map<CueNumber, CueNumber> followed = old == null ? Map.of() : Map.of(old.number(), cue.number());
        Item from = holding;
        List<Item> changed = Show.replaced(show.items(), i -> {
            if (i.id() != itemId && i != from) {
                return i;
            }
            Stream<Cue> others = i.cues().stream().filter(c -> c.id() != cueId);
            return i.withCues((i.id() == itemId ? Stream.concat(others, Stream.of(placed)) : others).toList())
                    .withNumbersFollowed(followed);
        });
        return show.next(show.name(), added ? show.nextId() + 1 : show.nextId(), show.devices(), changed);
    }

    Show add(int itemId, List<Cue> added) {
        Item item = show.requireItem(itemId);
        Set<CueNumber> numbers = show.cues().map(Cue::number).collect(Collectors.toSet());
        List<Cue> cues = new ArrayList<>(item.cues());
        int next = show.nextId();
        for (Cue cue : added) {
            if (!numbers.add(cue.number())) {
                throw numberTaken(cue.number());
            }
            cues.add(cue.withId(next++).withVersion(show.revision() + 1));
        }
        return show.next(
                show.name(), next, show.devices(), Show.replaced(show.items(), i -> i == item ? i.withCues(cues) : i));
    }

    Show addAfter(int itemId, int afterCueId, List<Cue> added) {
        show.requireItem(itemId);
        List<CueNumber> numbers = new CueNumbers(show).after(itemId, afterCueId, added);
        List<Cue> numbered = IntStream.range(0, added.size())
                .mapToObj(i -> added.get(i).withNumber(numbers.get(i)))
                .toList();
        return add(itemId, numbered);
    }

    Show number(Map<Integer, CueNumber> numbers) {
        return exchange(show.cues()
                .filter(c -> numbers.containsKey(c.id()))
                .map(c -> c.withNumber(numbers.get(c.id())))
                .toList());
    }

    Show exchange(Collection<Cue> exchanged) {
        Map<Integer, Cue> others = new HashMap<>();
        exchanged.forEach(c -> others.put(c.id(), c));
        Map<CueNumber, CueNumber> followed = new HashMap<>();
        Set<CueNumber> taken = new HashSet<>();
        show.cues().forEach(c -> {
            CueNumber number = others.getOrDefault(c.id(), c).number();
            if (!taken.add(number)) {
                throw numberTaken(number);
            }
            if (!number.equals(c.number())) {
                followed.put(c.number(), number);
            }
        });
        List<Item> changed = Show.replaced(show.items(), i -> i.withCues(Show.replaced(i.cues(), c -> {
                    Cue other = others.getOrDefault(c.id(), c);
                    return other.equals(c) ? c : other.withVersion(show.revision() + 1);
                }))
                .withNumbersFollowed(followed));
        return changed.equals(show.items()) ? show : show.next(show.name(), show.nextId(), show.devices(), changed);
    }

    Show remove(Set<Integer> gone) {
        List<Item> changed = Show.replaced(
                show.items(),
                i -> i.withCues(
                        i.cues().stream().filter(c -> !gone.contains(c.id())).toList()));
        return show.next(show.name(), show.nextId(), show.devices(), changed);
    }

    Show move(int cueId, int step) {
        Item item = show.itemOf(cueId).orElseThrow(CueEdits::cueGone);
        Cue cue = show.cue(cueId).orElseThrow(CueEdits::cueGone);
        int neighbour = item.cues().indexOf(cue) + step;
        if (neighbour >= 0 && neighbour < item.cues().size()) {
            Cue other = item.cues().get(neighbour);
            return number(Map.of(cueId, other.number(), other.id(), cue.number()));
        }
        int itemPlace = show.items().indexOf(item) + step;
        if (itemPlace < 0 || itemPlace >= show.items().size()) {
            return show;
        }
        Item other = show.items().get(itemPlace);
        int after = step > 0 || other.cues().isEmpty()
                ? 0
                : other.cues().get(other.cues().size() - 1).id();
        Show without = remove(Set.of(cueId));
        Show with = without.withCue(other.id(), cue.withNumber(without.numberAfter(other.id(), after)));
        // Both together are one edit.
        return new Show(
                show.id(),
                show.name(),
                show.revision() + 1,
                with.nextId(),
                with.devices(),
                with.items(),
                show.listeners(),
                with.hands());
    }

    private static Refusal numberTaken(CueNumber number) {
        return new Refusal("number", "There is a cue " + number + " already; choose another number.");
    }

    private static Refusal cueGone() {
        return new Refusal("cue", "That cue is no longer in the book; reload the page.");
    }
}
