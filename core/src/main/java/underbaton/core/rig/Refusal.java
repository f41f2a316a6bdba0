package underbaton.core.rig;

import java.util.List;

/**
 * Something a person asked for that cannot be: says which field, what is wrong, and how to mend it. Nothing has changed
 * when it is thrown.
 */
public final class Refusal extends RuntimeException {

    private final String field;
    private final transient List<Refusal> all;

    /**
     * @param field the field in question, in lower case; empty when it is the whole
     * @param message one sentence: what is wrong and how to mend it
     */
    public Refusal(String field, String message) {
        super(message);
        this.field = field;
        this.all = List.of(this);
    }

    private Refusal(List<Refusal> all) {
        super(all.get(0).getMessage());
        this.field = all.get(0).field;
        this.all = List.copyOf(all);
    }

    /** Several at once, of which the first speaks where only one is asked for. */
    public static Refusal ofAll(List<Refusal> all) {
        return all.size() == 1 ? all.get(0) : new Refusal(all);
    }

    /** This, or all that it stands for. */
    public List<Refusal> all() {
        return all;
    }

    /** The field of the form that it speaks of; empty for none. */
    public String field() {
        return field;
    }

    /** The text without blanks around it, refused when nothing is left or it is longer than {@code most} characters. */
    public static String requireName(String field, String text, int most) {
        String name = text == null ? "" : text.strip();
        if (name.isEmpty()) {
            throw new Refusal(field, "Give a " + field + "; it is empty.");
        }
        return requireShort(field, name, most);
    }

    /** The text, refused when longer than {@code most} characters, or when it cannot be written down (half a character). */
    public static String requireShort(String field, String text, int most) {
        if (text.length() > most) {
            String what = field.startsWith("what ") ? "W" + field.substring(1) : "The " + field;
            throw new Refusal(field, what + " has " + text.length() + " characters; shorten it to " + most + ".");
        }
        return requireWhole(field, text);
    }

    /** The text, refused when it holds half of a character that takes two places (a surrogate alone). */
    public static String requireWhole(String field, String text) {
        if (text.codePoints().anyMatch(c -> c >= Character.MIN_SURROGATE && c <= Character.MAX_SURROGATE)) {
            throw new Refusal(field, "The " + field + " holds half a character, which cannot be kept; type it anew.");
        }
        return text;
    }
}
