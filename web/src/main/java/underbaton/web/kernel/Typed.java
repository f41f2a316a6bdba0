package underbaton.web.kernel;

import underbaton.core.rig.Refusal;

/** Reads what people type into blanks. */
public final class Typed {

    private Typed() {}

    /** A blank that was not on the page is an empty one. */
    public static String orEmpty(String text) {
        return text == null ? "" : text;
    }

    /** @throws Refusal when the text is no whole number */
    public static int number(String field, String text) {
        String digits = orEmpty(text).strip().replace('−', '-');
        if (!digits.matches("-?\\d{1,9}")) {
            throw new Refusal(
                    field,
                    digits.isEmpty()
                            ? "Type a number for the " + field + "; it is empty."
                            : "“" + text.strip() + "” is no whole number; type one for the " + field + ".");
        }
        return Integer.parseInt(digits);
    }
}
