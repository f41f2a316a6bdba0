package underbaton.core.cue;

import java.util.List;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks.Mark;

/**
 * A hand cue: fired by touch, outside the running order.
 *
 * @param id unique in the show
 * @param row 0–5, from the top of its page
 * @param column 0–7, from the left
 * @param on what it calls when it is pressed; of an on-off key, when it goes on
 * @param off what it calls when it is let go, or goes off; nothing for one that is only pressed
 * @param guarded whether it wants a second touch
 */
public record HandKey(
        int id, int row, int column, String name, Mark mark, Way way, List<Call> on, List<Call> off, boolean guarded) {

    private static final int MOST_CALLS = 32;

    /** How a key is worked. */
    public enum Way {
        PRESS("press"),
        ON_OFF("on and off"),
        HELD("while held");

        private final String words;

        Way(String words) {
            this.words = words;
        }

        /** As the form offers it. */
        public String words() {
            return words;
        }
    }

    public HandKey {
        name = Refusal.requireName("name", name, 40);
        if (row < 0 || row >= HandPage.MOST_ROWS || column < 0 || column >= HandPage.MOST_COLUMNS) {
            throw new Refusal("place", "A page has at most 6 rows of 8 keys.");
        }
        on = List.copyOf(on);
        off = way == Way.PRESS ? List.of() : List.copyOf(off);
        if (on.size() > MOST_CALLS || off.size() > MOST_CALLS) {
            throw new Refusal("calls", "A key makes at most " + MOST_CALLS + " calls; make it two keys.");
        }
    }

    /** The same under another id; 0 for one that is to be given its id. */
    public HandKey withId(int newId) {
        return new HandKey(newId, row, column, name, mark, way, on, off, guarded);
    }

    /** The same at another place of its page, from 0. */
    public HandKey at(int newRow, int newColumn) {
        return new HandKey(id, newRow, newColumn, name, mark, way, on, off, guarded);
    }

    HandKey calling(List<Call> newOn, List<Call> newOff) {
        return newOn.equals(on) && newOff.equals(off)
                ? this
                : new HandKey(id, row, column, name, mark, way, newOn, newOff, guarded);
    }

    boolean isAt(int otherRow, int otherColumn) {
        return row == otherRow && column == otherColumn;
    }
}
