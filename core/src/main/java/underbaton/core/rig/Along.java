package underbaton.core.rig;

/** What a phrase takes along: something that other phrases set and that it sets anew. */
public enum Along {
    /** A scene moves the faders: where a control of the machine stands is as the scene says, which we do not know. */
    LEVELS("levels"),
    /** Another song begins at its first page: the machine's own lists that are stepped through go to their first place. */
    LISTS("lists"),
    /** Another reel ends the clip of the one before: what was set going on the machine no longer runs. */
    RUNS("what runs");

    private final String word;

    Along(String word) {
        this.word = word;
    }

    /** As it is typed. */
    public String word() {
        return word;
    }
}
