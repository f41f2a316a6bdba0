package underbaton.core.rig;

import java.util.Locale;
import java.util.Optional;

/**
 * How one machine prints its numbers. This is the only place where a wire number becomes a printed one or comes back:
 * on the wire programs, values and notes are 0–127 and channels 0–15.
 *
 * @param firstProgram what the machine calls program 0 of the wire: 0 or 1
 * @param firstValue what it calls value 0: 0 or 1
 * @param firstOctave the octave in its name for note 0: −2, −1 or 0 (makers differ; common practice)
 */
public record Numbering(int firstProgram, int firstValue, int firstOctave) {

    /** The wire's own: everything from 0. */
    public static final Numbering WIRE = new Numbering(0, 0, -2);

    private static final String[] SHARPS = {"C", "C♯", "D", "D♯", "E", "F", "F♯", "G", "G♯", "A", "A♯", "B"};
    private static final String STEPS = "C D EF G A B";

    public Numbering {
        requireOneOf("programs", firstProgram == 0 || firstProgram == 1, "from 0 or from 1");
        requireOneOf("values", firstValue == 0 || firstValue == 1, "from 0 or from 1");
        requireOneOf("octaves", firstOctave >= -2 && firstOctave <= 0, "with note 0 called C−2, C−1 or C0");
    }

    private static void requireOneOf(String field, boolean held, String choice) {
        if (!held) {
            throw new Refusal(field, "A machine counts " + field + " " + choice + "; choose one of these.");
        }
    }

    /** Channels are printed 1–16 by every machine. */
    public static int channel(int wire) {
        return wire + 1;
    }

    /** @throws Refusal when the printed channel is not 1–16 */
    public static int wireChannel(int printed) {
        return back("channel", printed, 1, 15);
    }

    /** Places of a list are printed from 1. */
    public static int place(int place) {
        return place + 1;
    }

    /** @throws Refusal when the printed place is below 1 */
    public static int placeFrom(int printed) {
        return back("place", printed, 1, 127);
    }

    public int program(int wire) {
        return wire + firstProgram;
    }

    /** @throws Refusal when the machine cannot print that program */
    public int wireProgram(int printed) {
        return back("program", printed, firstProgram, 127);
    }

    public int value(int wire) {
        return wire + firstValue;
    }

    /** @throws Refusal when the machine cannot print that value */
    public int wireValue(int printed) {
        return back("value", printed, firstValue, 127);
    }

    /** What can be seen on a machine's display after something was sent. */
    public enum Seen {
        PROGRAM,
        VALUE,
        NOTE
    }

    /**
     * Finds how a machine counts from one observation.
     *
     * @param what was sent
     * @param wire the number that was sent, 0–127
     * @param shown what the machine's display read then
     * @return this numbering with the one setting changed that explains it
     * @throws Refusal when no convention explains it
     */
    public Numbering explaining(Seen what, int wire, String shown) {
        String read = shown.strip();
        for (int choice = -2; choice <= 1; choice++) {
            Optional<Numbering> candidate = with(what, choice);
            if (candidate.isPresent() && candidate.get().shows(what, wire, read)) {
                return candidate.get();
            }
        }
        throw new Refusal(
                "shown",
                "No way of counting shows “" + read + "” for " + what.name().toLowerCase(Locale.ROOT) + " " + wire
                        + " of the wire. Did another message reach the machine, or is its channel another one?");
    }

    private Optional<Numbering> with(Seen what, int choice) {
        return switch (what) {
            case PROGRAM -> choice < 0 ? Optional.empty() : Optional.of(new Numbering(choice, firstValue, firstOctave));
            case VALUE -> choice < 0 ? Optional.empty() : Optional.of(new Numbering(firstProgram, choice, firstOctave));
            case NOTE -> choice > 0 ? Optional.empty() : Optional.of(new Numbering(firstProgram, firstValue, choice));
        };
    }

    private boolean shows(Seen what, int wire, String read) {
        return switch (what) {
            case PROGRAM -> read.equals(Integer.toString(program(wire)));
            case VALUE -> read.equals(Integer.toString(value(wire)));
            case NOTE -> !read.matches("\\d+") && isNote(read) && wireNote(read) == wire;
        };
    }

    private boolean isNote(String read) {
        try {
            return wireNote(read) >= 0;
        } catch (Refusal otherOctave) {
            return false;
        }
    }

    private static int back(String field, int printed, int first, int mostOnWire) {
        int wire = printed - first;
        if (wire < 0 || wire > mostOnWire) {
            throw new Refusal(
                    field,
                    "This machine's " + field + "s run from " + first + " to " + (mostOnWire + first) + "; " + printed
                            + " is none of them.");
        }
        return wire;
    }

    /** The machine's name for a note, with sharps: {@code E0}, {@code F♯−2}. */
    public String note(int wire) {
        int octave = wire / 12 + firstOctave;
        return SHARPS[wire % 12] + (octave < 0 ? "−" + -octave : octave);
    }

    /**
     * Reads a note as people type it: a number 0–127, or a name such as {@code E0}, {@code d#-2}, {@code e♭3}.
     *
     * @throws Refusal when it is neither, or lies outside the 128 notes
     */
    public int wireNote(String typed) {
        String text = typed.strip().replace('−', '-').replace('♯', '#').replace('♭', 'b');
        if (text.matches("\\d{1,3}")) {
            return requireNote(typed, Integer.parseInt(text));
        }
        if (!text.matches("(?i)[a-g][#b]?-?\\d{1,2}")) {
            throw new Refusal(
                    "note", "“" + typed + "” is no note; type a number 0 to 127 or a name such as E0 or F#-2.");
        }
        int step = STEPS.indexOf(Character.toUpperCase(text.charAt(0)));
        char sign = text.charAt(1);
        int accidental = sign == '#' ? 1 : sign == 'b' ? -1 : 0;
        int octave = Integer.parseInt(text.substring(accidental == 0 ? 1 : 2));
        return requireNote(typed, (octave - firstOctave) * 12 + step + accidental);
    }

    private int requireNote(String typed, int wire) {
        if (wire < 0 || wire > 127) {
            throw new Refusal(
                    "note",
                    "“" + typed + "” is outside this machine's notes, " + note(0) + " to " + note(127)
                            + " (0 to 127).");
        }
        return wire;
    }
}
