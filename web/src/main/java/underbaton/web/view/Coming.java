package underbaton.web.view;

/**
 * Something that comes.
 *
 * @param words what the department gets
 * @param what the cue's own words
 * @param note what the cue tells this department besides; may be empty
 * @param when where it comes, in words
 * @param atMs when it comes by itself, ms since the item began; below 0 where that is not known
 * @param epochMs when it comes by itself behind another cue, by the time of day; 0 for not so
 */
record Coming(String label, String words, String what, String note, String when, long atMs, long epochMs) {}
