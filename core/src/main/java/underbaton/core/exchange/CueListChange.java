package underbaton.core.exchange;

import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.PlannedLength;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.exchange.CueTable.Row;
import underbaton.core.rig.Refusal;

/**
 * What a cue list that somebody brings makes of a show, worked out before anything is changed. Cues are known by their
 * numbers: those of the book are changed where the table says otherwise, others are added behind the cue of the row
 * above; items are known by their names.
 *
 * @param show as it would be
 * @param items how many are new
 * @param added cues that are new
 * @param changed cues that are not what they were, moved ones among them
 * @param same cues that the table has as the book has them
 * @param absent numbers of cues that the book has and the table has not
 * @param left what could not be matched, a sentence each
 */
public record CueListChange(
        Show show, int items, int added, int changed, int same, List<CueNumber> absent, List<String> left) {

    /**
     * @param complete whether cues that are not in the table are taken out
     * @throws Refusal naming the row and the column that cannot be read
     */
    public static CueListChange of(Show show, CueTable table, boolean complete) {
        return new Reading(show, table).read(complete);
    }

    /** The rows, taken in one after the other. */
    private static final class Reading {
        private final Show before;
        private final CueTable table;
        private final Repointing machines;
        private final Set<CueNumber> seen = new HashSet<>();
        private Show show;
        private Optional<Item> item = Optional.empty();
        private int after;
        private int items;
        private int added;
        private int changed;
        private int same;

        Reading(Show show, CueTable table) {
            this.before = show;
            this.show = show;
            this.table = table;
            this.machines = new Repointing(show, table.machines(), false);
        }

        CueListChange read(boolean complete) {
            for (Row row : table.rows()) {
                try {
                    take(row);
                } catch (Refusal refusal) {
                    throw Csv.at(row.line(), refusal);
                }
            }
            List<Cue> absent =
                    before.cues().filter(c -> !seen.contains(c.number())).toList();
            if (complete && !absent.isEmpty()) {
                show = show.withoutCues(absent.stream().map(Cue::id).toList());
            }
            List<CueNumber> numbers = absent.stream().map(Cue::number).toList();
            return new CueListChange(show, items, added, changed, same, numbers, left());
        }

        private List<String> left() {
            Stream<String> nowhere =
                    show.items().stream().flatMap(i -> Repointing.nowhere(i, c -> seen.contains(c.number())));
            return Stream.concat(machines.left().stream(), nowhere).toList();
        }

        private void take(Row row) {
            item = Optional.of(item(row));
            if (!row.isCue()) {
                return;
            }
            int itemId = item.get().id();
            Optional<Cue> known = row.field(CueTable.CUE).isEmpty()
                    ? Optional.empty()
                    : show.cueNumbered(CueNumber.of(row.field(CueTable.CUE)));
            Cue cue = machines.into(row, known.orElseGet(() -> fresh(itemId)));
            if (!seen.add(cue.number())) {
                throw new Refusal(CueTable.CUE, "cue " + cue.number() + " stands in a row above already.");
            }
            boolean moved = known.isPresent()
                    && show.itemOf(cue.id()).filter(i -> i.id() == itemId).isEmpty();
            if (known.isPresent() && known.get().equals(cue) && !moved) {
                same++;
            } else {
                show = show.withCue(itemId, cue);
                added += known.isPresent() ? 0 : 1;
                changed += known.isPresent() ? 1 : 0;
            }
            after = show.cueNumbered(cue.number()).orElseThrow().id();
        }

        private Cue fresh(int itemId) {
            int behind = show.itemOf(after).filter(i -> i.id() == itemId).isPresent() ? after : 0;
            return new Cue(0, show.numberAfter(itemId, behind), Start.BY_HAND, "", List.of(), 0);
        }

        /** The item of a row: named there, or that of the row above. */
        private Item item(Row row) {
            String name = row.field(CueTable.ITEM);
            if (name.isEmpty()) {
                return item.orElseThrow(() -> new Refusal(
                        CueTable.ITEM,
                        "the first row names no item; write the song or scene that the cue belongs to."));
            }
            Optional<Item> standing = item.filter(i -> i.name().equalsIgnoreCase(name))
                    .or(() -> itemOfNumber(row, name))
                    .or(() -> show.items().stream()
                            .filter(i -> i.name().equalsIgnoreCase(name))
                            .findFirst());
            return standing.orElseGet(() -> newItem(row, name));
        }

        /** Two items may have one name; then the cue's number says which is meant. */
        private Optional<Item> itemOfNumber(Row row, String name) {
            return row.field(CueTable.CUE).isEmpty()
                    ? Optional.empty()
                    : show.cueNumbered(CueNumber.of(row.field(CueTable.CUE)))
                            .flatMap(c -> show.itemOf(c.id()))
                            .filter(i -> i.name().equalsIgnoreCase(name));
        }

        private Item newItem(Row row, String name) {
            int place = item.map(i -> 1 + place(i.id())).orElse(show.items().size());
            Item added = new Item(0, kind(row), name, PlannedLength.of(row.field(CueTable.LENGTH)), List.of());
            show = show.withItem(added, place);
            items++;
            return show.items().get(Math.min(place, show.items().size() - 1));
        }

        private int place(int itemId) {
            return show.items().stream().map(Item::id).toList().indexOf(itemId);
        }

        private static ItemKind kind(Row row) {
            String typed = row.field(CueTable.KIND);
            if (typed.isEmpty()) {
                return ItemKind.OTHER;
            }
            return Stream.of(ItemKind.values())
                    .filter(k -> k.title().equalsIgnoreCase(typed))
                    .findFirst()
                    .orElseThrow(() -> new Refusal(
                            CueTable.KIND,
                            "“" + typed.toLowerCase(Locale.ROOT)
                                    + "” is no kind of item; they are song, scene, speech, film, interval and other."));
        }
    }
}
