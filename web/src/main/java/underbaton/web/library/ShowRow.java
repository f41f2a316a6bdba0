package underbaton.web.library;

import underbaton.core.cue.Show;

/**
 * The row of a show itself.
 *
 * @param deletedMillis when it was deleted, ms since 1970; null while it stands on the shelf
 */
record ShowRow(int id, String name, int revision, int nextId, Long deletedMillis) {

    static ShowRow of(Show show) {
        return new ShowRow(show.id(), show.name(), show.revision(), show.nextId(), null);
    }
}
