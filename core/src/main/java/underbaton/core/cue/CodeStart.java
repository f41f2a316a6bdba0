package underbaton.core.cue;

import java.util.OptionalInt;
import underbaton.core.rig.Refusal;

/** Where an item begins in the day of the time code, as people write it: hours, minutes and seconds. */
public final class CodeStart {

    private CodeStart() {}

    /**
     * A time of the day ({@code 10:00:00}), its hour alone ({@code 10}), or nothing.
     *
     * @return s since midnight; empty for nothing
     * @throws Refusal when it is none of these
     */
    public static OptionalInt of(String text) {
        String typed = text.strip();
        if (typed.isEmpty()) {
            return OptionalInt.empty();
        }
        if (!typed.matches("([01]?\\d|2[0-3])(:[0-5]\\d:[0-5]\\d)?")) {
            throw new Refusal(
                    "code",
                    "“" + typed + "” is no time of the day; type hours, minutes and seconds, such as 10:00:00.");
        }
        String[] parts = typed.split(":");
        int hours = Integer.parseInt(parts[0]) * 3600;
        return OptionalInt.of(
                parts.length == 1 ? hours : hours + Integer.parseInt(parts[1]) * 60 + Integer.parseInt(parts[2]));
    }

    /** The other way round. @param seconds since midnight */
    public static String tell(int seconds) {
        return "%02d:%02d:%02d".formatted(seconds / 3600, seconds / 60 % 60, seconds % 60);
    }
}
