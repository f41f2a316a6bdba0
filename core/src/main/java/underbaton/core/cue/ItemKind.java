package underbaton.core.cue;

import java.util.Locale;

/** What an entry of the running order is. */
public enum ItemKind {
    SONG("Song"),
    SCENE("Scene"),
    SPEECH("Speech"),
    FILM("Film"),
    INTERVAL("Interval"),
    OTHER("Other");

    private final String title;

    ItemKind(String title) {
        this.title = title;
    }

    /** As headings write it. */
    public String title() {
        return title;
    }

    /** As it stands in a sentence. */
    public String word() {
        return title.toLowerCase(Locale.ROOT);
    }
}
