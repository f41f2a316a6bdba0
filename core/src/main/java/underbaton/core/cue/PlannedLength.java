package underbaton.core.cue;

import underbaton.core.rig.Refusal;

/** The planned length of an item as people write it: minutes and seconds. */
public final class PlannedLength {

    private PlannedLength() {}

    /**
     * A length as minutes and seconds ({@code 3:42}), minutes alone ({@code 4}), or nothing.
     *
     * @return seconds; 0 for nothing
     * @throws Refusal when it is none of these
     */
    public static int of(String text) {
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
    public static String tell(int seconds) {
        return seconds == 0 ? "" : "%d:%02d".formatted(seconds / 60, seconds % 60);
    }
}
