package underbaton.web.book;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemEnd;
import underbaton.core.cue.Show;
import underbaton.core.engine.DryRun;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;

/**
 * The book as it is drawn: leaves of rows, a row a cue, a column a machine.
 *
 * @param held what every machine is doing at every cue
 * @param machinesSince the revision since which the machines and their phrasebooks are as they are
 */
record BookView(Show show, DryRun run, List<Leaf> leaves, int machinesSince) {

    /** Rows of a leaf: enough to fill a screen, few enough to be sent again for an edit of one of them. */
    private static final int MOST_ROWS = 40;

    /**
     * @param before the book as it was drawn last, whose leaves are taken over where nothing changed; null for none
     */
    static BookView of(Show show, DryRun run, BookView before) {
        boolean sameMachines = before != null
                && before.show.devices().equals(show.devices())
                && before.show.told().equals(show.told());
        Map<String, Leaf> known = new HashMap<>();
        if (sameMachines) {
            before.leaves.forEach(l -> known.put(l.id(), l));
        }
        Plan plan = run.knowing();
        List<Leaf> leaves = new ArrayList<>();
        Map<Integer, PlannedCall> state = Map.of();
        int place = 0;
        for (Item item : show.items()) {
            place++;
            int seconds = plan.item(item.id()).map(PlannedItem::seconds).orElse(0);
            ItemEnd end = ItemEnd.of(item);
            Map<Integer, List<Leaf.Again>> copies = copies(item, run);
            int part = 0;
            do {
                int from = part * MOST_ROWS;
                List<Cue> cues = item.cues()
                        .subList(from, Math.min(from + MOST_ROWS, item.cues().size()));
                List<Leaf.Row> rows = cues.stream()
                        .map(c -> new Leaf.Row(
                                c,
                                end.behind(c).orElse(""),
                                run.shown(c.id()),
                                c == item.cues().get(0) ? copies.getOrDefault(0, List.of()) : List.of(),
                                copies.getOrDefault(c.id(), List.of()),
                                untold(plan, c),
                                show.revision()))
                        .toList();
                Leaf leaf = new Leaf(item, place, part, seconds, state, rows, show.revision(), show.revision());
                state = rows.isEmpty() ? state : rows.get(rows.size() - 1).leaves();
                leaves.add(leaf.after(known.get(leaf.id())));
                part++;
            } while (part * MOST_ROWS < item.cues().size());
        }
        return new BookView(show, run, leaves, sameMachines ? before.machinesSince : show.revision());
    }

    private static Map<Integer, String> untold(Plan plan, Cue cue) {
        Map<Integer, String> untold = new HashMap<>();
        int index = plan.indexOf(cue.id());
        if (index >= 0) {
            PlannedCue planned = plan.cues().get(index);
            for (PlannedCall call : planned.calls()) {
                if (call.motion().isPresent()) {
                    plan.untoldFade(planned, call.deviceId()).ifPresent(w -> untold.put(call.deviceId(), w));
                }
            }
        }
        return untold;
    }

    /** The copies in linked sections, by the id of the cue after which they come; 0 for those before the first. */
    private static Map<Integer, List<Leaf.Again>> copies(Item item, DryRun run) {
        Map<Integer, List<Leaf.Again>> copies = new HashMap<>();
        Optional<PlannedItem> planned = run.plan().item(item.id());
        boolean linked = planned.stream().flatMap(p -> p.cues().stream()).anyMatch(c -> !c.copy()
                .isEmpty());
        if (!linked) {
            return copies;
        }
        Map<Integer, Cue> own = item.cues().stream().collect(Collectors.toMap(Cue::id, Function.identity()));
        int last = 0;
        for (PlannedCue cue : planned.get().cues()) {
            if (cue.copy().isEmpty()) {
                last = cue.cueId();
            } else {
                copies.computeIfAbsent(last, l -> new ArrayList<>())
                        .add(new Leaf.Again(
                                own.get(cue.cueId()), cue.label(), planned.get().starts(cue), run.shown(cue)));
            }
        }
        return copies;
    }

    /** As a person counts them: {@code 53 cues, 9 items}. */
    String count() {
        return leaves.stream().mapToInt(l -> l.rows().size()).sum() + " cues, "
                + show.items().size() + " items";
    }
}
