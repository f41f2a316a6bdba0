package underbaton.web.library;

/**
 * The row of a part of a show.
 *
 * @param kind {@code device}, {@code phrase}, {@code item} or {@code cue}
 * @param parent the device of a phrase, the item of a cue, else 0
 * @param place among the parts of its kind with the same parent; cues stand in the order of their numbers
 * @param version of a cue, else 0
 * @param content as {@link underbaton.core.store.StoredForm} writes it
 */
record PartRow(int showId, String kind, int id, int parent, int place, int version, String content) {}
