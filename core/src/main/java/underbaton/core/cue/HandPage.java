package underbaton.core.cue;

import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import underbaton.core.rig.Refusal;

/**
 * A page of hand cues: a grid with at most one key in each place.
 *
 * @param id unique in the show
 * @param rows 2–6
 * @param columns 2–8
 * @param keys row by row
 */
public record HandPage(int id, String name, int rows, int columns, List<HandKey> keys) {

    static final int MOST_ROWS = 6;
    static final int MOST_COLUMNS = 8;
    private static final int LEAST = 2;
    /** So many keys have a number of one digit. */
    private static final int FEW = 9;

    public HandPage {
        name = Refusal.requireName("name", name, 40);
        if (rows < LEAST || rows > MOST_ROWS || columns < LEAST || columns > MOST_COLUMNS) {
            throw new Refusal("grid", "A page has 2 to 6 rows of 2 to 8 keys.");
        }
        keys = keys.stream()
                .sorted(Comparator.comparingInt(HandKey::row).thenComparingInt(HandKey::column))
                .toList();
        Set<Integer> places = new HashSet<>();
        for (HandKey key : keys) {
            if (key.row() >= rows || key.column() >= columns) {
                throw new Refusal(
                        "grid",
                        "“" + key.name() + "” has no place in " + rows + " rows of " + columns + "; move it first.");
            }
            if (!places.add(key.row() * MOST_COLUMNS + key.column())) {
                throw new Refusal("place", "Two keys have one place; “" + key.name() + "” needs another.");
            }
        }
    }

    /** The same under another id; 0 for one that is to be given its id. */
    public HandPage withId(int newId) {
        return new HandPage(newId, name, rows, columns, keys);
    }

    /** The same under another name with so many rows and columns; its keys stay where they are. */
    public HandPage withGrid(String newName, int newRows, int newColumns) {
        return new HandPage(id, newName, newRows, newColumns, keys);
    }

    HandPage withKeys(List<HandKey> newKeys) {
        return new HandPage(id, name, rows, columns, newKeys);
    }

    HandPage withEachKey(UnaryOperator<HandKey> change) {
        List<HandKey> changed = keys.stream().map(change).toList();
        return changed.equals(keys) ? this : withKeys(changed);
    }

    /** The key with this id, if it is on this page. */
    public Optional<HandKey> key(int keyId) {
        return keys.stream().filter(k -> k.id() == keyId).findFirst();
    }

    /** The key at this place, from 0, if there is one. */
    public Optional<HandKey> at(int row, int column) {
        return keys.stream().filter(k -> k.isAt(row, column)).findFirst();
    }

    /** Row by row, the first place without a key. */
    public Optional<int[]> free() {
        return Stream.iterate(0, i -> i < rows * columns, i -> i + 1)
                .filter(i -> at(i / columns, i % columns).isEmpty())
                .map(i -> new int[] {i / columns, i % columns})
                .findFirst();
    }

    /** What is typed for a place: a page of up to nine keys counts them; on a larger one, the row and the column. */
    public String digits(int row, int column) {
        return rows * columns <= FEW
                ? Integer.toString(row * columns + column + 1)
                : Integer.toString(row + 1) + (column + 1);
    }
}
