package underbaton.web.page;

import underbaton.core.rig.Refusal;

/** Reads what people type into blanks. */
public final class Typed {

    private Typed() {}

    /** @throws Refusal when the text is no whole number */
    public static int number(String field, String text) {
        String digits = text.strip().replace('−', '-');
        if (!digits.matches("-?\\d{1,9}")) {
            throw new Refusal(
                    field,
                    digits.isEmpty()
                            ? "Type a number for the " + field + "; it is empty."
                            : "“" + text.strip() + "” is no whole number; type one for the " + field + ".");
        }
        return Integer.parseInt(digits);
    }

    /**
     * A length as minutes and seconds ({@code 3:42}), minutes alone ({@code 4}), or nothing.
     *
     * @return seconds; 0 for nothing
     */
    public static int seconds(String text) {
        String typed = text.strip();
        if (typed.isEmpty()) {
            return 0;
        }
        if (!typed.matches("\\d{1,4}(:[0-5]\\d)?")) {
            throw new Refusal("length", "“" + typed + "” is no length; type minutes and seconds, such as 3:42.");
        }
        String[] parts = typed.split(":");
        return Integer.parseInt(parts[0]) * 60 + (parts.length > 1 ? Integer.parseInt(parts[1]) : 0);
    }

    /** The other way round; empty for 0. */
    public static String length(int seconds) {
        return seconds == 0 ? "" : "%d:%02d".formatted(seconds / 60, seconds % 60);
    }
}
