package underbaton.core.rig;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/** Who works a machine. The code is what the pages print beside the department's own mark. */
public enum Department {
    LIGHTS("LX", "Lights"),
    VIDEO("VD", "Video"),
    WORDS("TX", "Words"),
    CAMERAS("CM", "Cameras"),
    SOUND("SD", "Sound"),
    KEYS("KY", "Keys");

    private final String code;
    private final String title;

    Department(String code, String title) {
        this.code = code;
        this.title = title;
    }

    /** What in a machine's name tells whose it is, in the order in which it is looked for. */
    private static final Map<Department, Pattern> SIGNS = signs();

    private static Map<Department, Pattern> signs() {
        Map<Department, String> words = new LinkedHashMap<>();
        words.put(LIGHTS, "light|lamp|dimmer|dmx");
        words.put(WORDS, "words?|lyric|text|caption|title");
        words.put(CAMERAS, "camera|cam |switcher");
        words.put(KEYS, "key|piano|synth|organ|pedal|pads?\\b|drum|controller");
        words.put(VIDEO, "video|screen|projector|clip|film");
        words.put(SOUND, "sound|audio|console|mixer|player|playback|tuning|vocal");
        Map<Department, Pattern> signs = new LinkedHashMap<>();
        words.forEach((d, w) -> signs.put(d, Pattern.compile(w, Pattern.CASE_INSENSITIVE)));
        return signs;
    }

    /** Whose a machine is likely to be that calls itself so; lights, for nothing tells. */
    public static Department likelyOf(String name) {
        return SIGNS.entrySet().stream()
                .filter(s -> s.getValue().matcher(name).find())
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse(LIGHTS);
    }

    /** Whose code a line begins with, and a colon behind it; in whatever letters. */
    public static Optional<Department> begins(String line) {
        String start = line.strip().toUpperCase(Locale.ROOT);
        return Arrays.stream(values())
                .filter(d -> start.startsWith(d.code + ":"))
                .findFirst();
    }

    /** Its code in small letters, by which styles and drawings know it. */
    public String key() {
        return code.toLowerCase(Locale.ROOT);
    }

    /** As it stands in a sentence. */
    public String word() {
        return title.toLowerCase(Locale.ROOT);
    }

    /** Two capital letters. */
    public String code() {
        return code;
    }

    /** As headings write it. */
    public String title() {
        return title;
    }
}
