package underbaton.core.rig;

/** Texts cut to a length, the one place that does so: no character that takes two places is ever cut in half. */
public final class Cut {

    private static final String MORE = "…";

    private Cut() {}

    /** @param most 0 or more, in UTF-16 units, as names and fields are measured */
    public static String to(int most, String text) {
        if (text.length() <= most) {
            return text;
        }
        boolean splits = most > 0 && Character.isHighSurrogate(text.charAt(most - 1));
        return text.substring(0, splits ? most - 1 : most);
    }

    /** The same with a sign that something was cut, which counts too. @param most 1 or more */
    public static String shown(int most, String text) {
        return text.length() <= most ? text : to(most - 1, text).stripTrailing() + MORE;
    }

    /** A text with something behind it, of which the text gives way: {@code Far away 2}. */
    public static String before(int most, String text, String behind) {
        return to(Math.max(0, most - behind.length()), text) + behind;
    }
}
