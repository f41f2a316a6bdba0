package underbaton.core.signal;

import java.util.Arrays;
import java.util.Optional;

/**
 * The orders that need to know nothing else, a line an order: its name is how a listener keeps it, and behind it stand its word over
 * Open Sound Control and in a browser's line, what it is called in log and pages, and its key on the Desk.
 */
public enum Deed {
    GO("go", "GO", "Enter"),
    BACK("back", "standby back", "Backspace", "ArrowUp"),
    NEXT("next", "standby on", "ArrowDown"),
    CUE_BEFORE("before", "the cue before, now", "b"),
    STOP_ALL("stop", "stop all", "s"),
    HOLD("hold", "hold: the band has stopped", "h"),
    PAUSE("pause", "pause, or go on", "p"),
    RESUME("resume", "go on"),
    RELEASE("release", "leave the vamp", "r"),
    FOLLOW("follow", "in step with its machine, or by hand", "i"),
    TAP("tap", "tap the tempo", "t"),
    FASTER("faster", "tempo up by 1 %", "+"),
    SLOWER("slower", "tempo down by 1 %", "-"),
    AS_WRITTEN("written", "tempo as written", "0"),
    EARLIER("earlier", "the music 20 ms earlier", ","),
    LATER("later", "the music 20 ms later", ".");

    private final String word;
    private final String words;
    private final String[] keys;

    Deed(String word, String words, String... keys) {
        this.word = word;
        this.words = words;
        this.keys = keys;
    }

    /** Over Open Sound Control and in a browser's line. */
    public String word() {
        return word;
    }

    /** What it is called, in small letters. */
    public String words() {
        return words;
    }

    /** By which it is given on the Desk, until they are bound anew: {@code Enter}, {@code s}; none for some. */
    public String[] keys() {
        return keys.clone();
    }

    /** The deed of this word, if there is one. */
    public static Optional<Deed> of(String word) {
        return Arrays.stream(values()).filter(d -> d.word.equals(word)).findFirst();
    }
}
