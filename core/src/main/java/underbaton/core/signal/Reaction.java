package underbaton.core.signal;

import java.util.Collections;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import underbaton.core.rig.Refusal;

/** What we do when a signal comes that a listener listens for. */
public sealed interface Reaction {

    /** An order of the Desk. */
    record Give(Deed deed) implements Reaction {}

    /**
     * A cue of the book.
     *
     * @param cueId 0 for the cue whose number comes with the signal: a program as its machine prints it, a song, the first argument
     *     of an OSC message, the cue of show control
     * @param offset added to a number that comes with it
     * @param table which cue is meant by which number, before the offset is thought of
     * @param fires whether it is fired, or stands by
     */
    record ToCue(int cueId, int offset, List<Row> table, boolean fires) implements Reaction {

        private static final int MOST = 500;

        /** @param number as it comes with the signal */
        public record Row(String number, int cueId) {
            public Row {
                number = Refusal.requireName("table", number, 40);
            }
        }

        public ToCue {
            table = List.copyOf(table);
            if (table.size() > MOST) {
                throw new Refusal("table", "A table has at most 500 numbers.");
            }
            if (table.stream().map(Row::number).distinct().count() < table.size()) {
                throw new Refusal("table", "A number stands twice in the table; take one of them away.");
            }
        }

        /** Without a table of numbers. */
        public ToCue(int cueId, int offset, boolean fires) {
            this(cueId, offset, List.of(), fires);
        }
    }

    /**
     * An item.
     *
     * @param itemId 0 for the n-th of the running order, n coming with the signal, or for the one of which the name comes
     * @param offset added to a number that comes with it
     * @param section the letter of the section from which it is played; empty for its beginning
     */
    record Play(int itemId, int offset, String section) implements Reaction {

        public Play {
            section = Refusal.requireShort("section", section.strip(), 8);
        }
    }

    /** A phrase of a machine, with the amount that it has when nobody says another. */
    record Fire(int deviceId, int phraseId) implements Reaction {}

    /** A hand cue, as if its key were touched; one that works while it is held is let go when the signal is. */
    record Hand(int keyId) implements Reaction {}

    /** Other listeners listen, or do so no longer: one of them or a group. */
    record Arm(Set<Integer> listenerIds, boolean listens) implements Reaction {

        public Arm {
            // In one order, so that equal listeners are equal files.
            listenerIds = Collections.unmodifiableSet(new TreeSet<>(listenerIds));
            if (listenerIds.isEmpty() || listenerIds.contains(0)) {
                throw new Refusal("listener", "Choose the listeners that are armed or disarmed.");
            }
        }
    }

    /** It is passed on, translated: such a listener is a relay. */
    record PassOn(Passage passage) implements Reaction {}
}
