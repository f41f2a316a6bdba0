package underbaton.core.rig;

/** What a phrase does to its device. */
public enum Effect {
    /** Takes the device's slot until another phrase takes it. */
    HOLDS("holds"),
    /** Fires and is over. */
    MOMENT("moment"),
    /** Sets something going that goes on by itself. */
    STARTS("starts"),
    /** Ends what is held or going on. */
    STOPS("stops"),
    /** Moves the device's own pointer. */
    STEPS("steps"),
    /** Sets a control. */
    LEVELS("levels");

    private final String word;

    Effect(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }

    /** Whether the device stays in the state that the phrase gave it. */
    public boolean lasts() {
        return this == HOLDS || this == STARTS || this == STEPS;
    }
}
