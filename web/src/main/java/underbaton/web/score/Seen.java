package underbaton.web.score;

/**
 * What a page has on its paper when it asks for a sheet: then lines that are as they were need not be sent again.
 *
 * @param bars to a line; 0 for the whole song on one page, below 0 for one long strip
 * @param width of the paper in the page; null for that of a page of 1280
 * @param revision of the show when that was drawn; null for nothing yet
 */
record Seen(int bars, Integer width, Integer revision) {

    private static final int LEAST = 600;
    private static final int USUAL = 1216;
    private static final int MOST = 2400;

    /** How wide the paper is drawn. */
    int wide() {
        return width == null ? USUAL : Math.max(LEAST, Math.min(MOST, width));
    }
}
