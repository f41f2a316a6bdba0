package underbaton.core.cue;

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

    public String title() {
        return title;
    }
}
