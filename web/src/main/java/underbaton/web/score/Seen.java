package underbaton.web.score;

/**
 * What a page has on its paper when it asks for a sheet: then lines that are as they were need not be sent again.
 *
 * @param bars to a line; 0 for the whole song on one page, below 0 for one long strip
 * @param revision of the show when that was drawn; null for nothing yet
 */
record Seen(int bars, Integer revision) {}
