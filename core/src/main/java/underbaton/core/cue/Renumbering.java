package underbaton.core.cue;

import java.math.BigDecimal;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import underbaton.core.rig.Refusal;

/**
 * New numbers for cues that keep their order, worked out before anything is changed.
 *
 * @param numbers by the ids of the cues, in the book's order; those that keep their number too
 */
public record Renumbering(Map<Integer, CueNumber> numbers) {

    /**
     * @param cueIds in any order
     * @param first the number of the first of them in the book
     * @param step from each to the next
     * @throws Refusal when a cue that keeps its number is in the way
     */
    public static Renumbering of(Show show, Collection<Integer> cueIds, CueNumber first, CueNumber step) {
        Map<Integer, CueNumber> numbers = new LinkedHashMap<>();
        List<Cue> cues = show.cues().filter(c -> cueIds.contains(c.id())).toList();
        BigDecimal next = first.value();
        for (Cue cue : cues) {
            numbers.put(cue.id(), new CueNumber(next));
            next = next.add(step.value());
        }
        show.cues()
                .filter(c -> !numbers.containsKey(c.id()) && numbers.containsValue(c.number()))
                .findFirst()
                .ifPresent(c -> {
                    throw new Refusal(
                            "first",
                            "Cue " + c.number()
                                    + " keeps its number and is in the way; begin elsewhere, take a smaller step, or"
                                    + " choose it too.");
                });
        show.items().forEach(item -> requireOrder(item, numbers));
        return new Renumbering(numbers);
    }

    private static void requireOrder(Item item, Map<Integer, CueNumber> numbers) {
        for (int i = 1; i < item.cues().size(); i++) {
            Cue one = item.cues().get(i - 1);
            Cue two = item.cues().get(i);
            CueNumber first = numbers.getOrDefault(one.id(), one.number());
            CueNumber second = numbers.getOrDefault(two.id(), two.number());
            if (first.compareTo(second) > 0) {
                throw new Refusal(
                        "first",
                        "Cue " + one.number() + " as " + first + " would come behind cue " + two.number()
                                + (second.equals(two.number()) ? "" : " as " + second) + " in “" + item.name()
                                + "”; begin elsewhere, or choose both.");
            }
        }
    }

    /** The show with the new numbers. */
    public Show into(Show show) {
        return show.withNumbers(numbers);
    }
}
