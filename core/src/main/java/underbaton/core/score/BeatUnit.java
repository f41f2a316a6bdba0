package underbaton.core.score;

/** What a tempo counts, and how long it is. */
public enum BeatUnit {
    HALF("half", 1920),
    DOTTED_QUARTER("dotted quarter", 1440),
    QUARTER("quarter", 960),
    DOTTED_EIGHTH("dotted eighth", 720),
    EIGHTH("eighth", 480),
    SIXTEENTH("sixteenth", 240);

    /** Ticks in a quarter note: divides by 2 six times, by 3 and by 5, so that all common divisions are whole. */
    public static final int QUARTER_TICKS = 960;

    private final String words;
    private final int ticks;

    BeatUnit(String words, int ticks) {
        this.words = words;
        this.ticks = ticks;
    }

    /** @param words of one of them */
    static BeatUnit of(String words) {
        for (BeatUnit unit : values()) {
            if (unit.words.equals(words)) {
                return unit;
            }
        }
        throw new IllegalArgumentException(words);
    }

    /** As it is typed. */
    public String words() {
        return words;
    }

    /** How long it is, in ticks of which a quarter has {@value #QUARTER_TICKS}. */
    public int ticks() {
        return ticks;
    }
}
