package underbaton.core.rig;

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

    /** Two capital letters. */
    public String code() {
        return code;
    }

    public String title() {
        return title;
    }
}
