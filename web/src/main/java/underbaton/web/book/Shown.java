package underbaton.web.book;

import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * What a page has of the book when it asks: a leaf that is as the page has it need not be sent again.
 *
 * @param seen the show's revision that the page shows; null for a page that shows nothing yet
 * @param drawn ids of the leaves that it has drawn; of the others it has the head and the list of cues
 */
public record Shown(Integer seen, List<String> drawn) {

    /** Rows that a page is given before it has said what is in sight. */
    private static final int FIRST_ROWS = 60;

    static final Shown NOTHING = new Shown(null, List.of());

    public Shown {
        drawn = drawn == null ? List.of() : List.copyOf(drawn);
    }

    public enum As {
        SAME,
        LISTED,
        DRAWN
    }

    /**
     * A leaf and how it is sent.
     *
     * @param seen rows that are as they were then are only named; −1 for none
     */
    public record Sent(Leaf leaf, As as, int seen) {
        boolean same() {
            return as == As.SAME;
        }

        public boolean drawn() {
            return as == As.DRAWN;
        }

        public List<Leaf.Row> rows() {
            return drawn() ? leaf.rows() : List.of();
        }

        public boolean knows(Leaf.Row row) {
            return row.since() <= seen;
        }
    }

    boolean knowsMachines(BookView book) {
        return seen != null && book.machinesSince() <= seen;
    }

    /**
     * What must be sent, in the book's order.
     *
     * @param added the id of a cue that must be seen; 0 for none
     */
    List<Sent> of(BookView book, int added) {
        Set<String> there = new HashSet<>(drawn);
        if (seen == null) {
            int rows = 0;
            for (Leaf leaf : book.leaves()) {
                if (rows < FIRST_ROWS) {
                    there.add(leaf.id());
                }
                rows += leaf.rows().size();
            }
        }
        return book.leaves().stream()
                .map(leaf -> {
                    boolean has = seen != null && there.contains(leaf.id());
                    return new Sent(leaf, as(leaf, there, added), has ? seen : -1);
                })
                .filter(sent -> !sent.same())
                .toList();
    }

    private As as(Leaf leaf, Set<String> there, int added) {
        if (there.contains(leaf.id()) || added != 0 && leaf.has(added)) {
            return seen != null && leaf.since() <= seen && there.contains(leaf.id()) ? As.SAME : As.DRAWN;
        }
        return seen != null && leaf.listedSince() <= seen ? As.SAME : As.LISTED;
    }
}
