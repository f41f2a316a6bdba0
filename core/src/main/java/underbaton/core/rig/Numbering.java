package underbaton.core.rig;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * How one machine prints its numbers. This is the only place where a wire number becomes a printed one or comes back:
 * on the wire programs, values and notes are 0–127 and channels 0–15.
 *
 * @param firstProgram what the machine calls program 0 of the wire, or the first of a bank: 0 or 1
 * @param bankSize how many programs it counts before the next bank letter, 1–128; 0 when it prints programs as plain
 *     numbers
 * @param values how it prints the values of controllers, velocities and pressures
 * @param firstOctave the octave in its name for note 0: −2, −1 or 0 (makers differ; common practice)
 * @param flats whether it names the black keys with flats
 * @param firstPlace what it calls the first strip, and the first place of a list: 0 or 1
 */
public record Numbering(int firstProgram, int bankSize, Values values, int firstOctave, boolean flats, int firstPlace) {

    /** How values are printed. */
    public enum Values {
        FROM_0("0 to 127"),
        FROM_1("1 to 128"),
        /** Of 127; in whole numbers where one says which value is meant, else with one decimal. */
        PER_CENT("0 to 100 %");

        private final String range;

        Values(String range) {
            this.range = range;
        }

        /** As the form offers it. */
        public String range() {
            return range;
        }
    }

    /** The wire's own: everything from 0. */
    public static final Numbering WIRE = new Numbering(0, 0, Values.FROM_0, -2, false, 0);

    private static final int MOST = 127;
    private static final String[] SHARPS = {"C", "C♯", "D", "D♯", "E", "F", "F♯", "G", "G♯", "A", "A♯", "B"};
    private static final String[] FLATS = {"C", "D♭", "D", "E♭", "E", "F", "G♭", "G", "A♭", "A", "B♭", "B"};
    private static final String STEPS = "C D EF G A B";
    private static final Pattern NOTE = Pattern.compile("([a-h])(#|b|is|es|s)?(-?\\d{1,2})?");
    private static final Pattern BANKED = Pattern.compile("([A-Za-z])\\s*-?\\s*(\\d{1,3})");

    public Numbering {
        requireOneOf("programs", firstProgram == 0 || firstProgram == 1, "from 0 or from 1");
        requireOneOf("banks", bankSize == 0 || bankSize >= 5 && bankSize <= 128, "with 5 to 128 programs a letter");
        requireOneOf("octaves", firstOctave >= -2 && firstOctave <= 0, "with note 0 called C−2, C−1 or C0");
        requireOneOf("places", firstPlace == 0 || firstPlace == 1, "from 0 or from 1");
    }

    /** Plain programs, values from 0 or 1, sharps, and places from 1. */
    public Numbering(int firstProgram, int firstValue, int firstOctave) {
        this(firstProgram, 0, valuesFrom(firstValue), firstOctave, false, 1);
    }

    private static Values valuesFrom(int first) {
        requireOneOf("values", first == 0 || first == 1, "from 0 or from 1");
        return first == 0 ? Values.FROM_0 : Values.FROM_1;
    }

    private static void requireOneOf(String field, boolean held, String choice) {
        if (!held) {
            throw new Refusal(field, "A machine counts " + field + " " + choice + "; choose one of these.");
        }
    }

    /** What it calls program 0 of the wire: 0 or 1. */
    public Numbering withFirstProgram(int first) {
        return new Numbering(first, bankSize, values, firstOctave, flats, firstPlace);
    }

    /** How many programs it counts before the next bank letter, 5–128; 0 for none. */
    public Numbering withBankSize(int size) {
        return new Numbering(firstProgram, size, values, firstOctave, flats, firstPlace);
    }

    /** How it prints the values of controllers. */
    public Numbering withValues(Values other) {
        return new Numbering(firstProgram, bankSize, other, firstOctave, flats, firstPlace);
    }

    /** The octave in its name for note 0, −2 to 0, and whether black keys are flats. */
    public Numbering withNotes(int octave, boolean inFlats) {
        return new Numbering(firstProgram, bankSize, values, octave, inFlats, firstPlace);
    }

    /** What it calls the first strip or place: 0 or 1. */
    public Numbering withFirstPlace(int first) {
        return new Numbering(firstProgram, bankSize, values, firstOctave, flats, first);
    }

    // ---- channels, places

    /** Channels are printed 1–16 by every machine. */
    public static int channel(int wire) {
        return wire + 1;
    }

    /** @throws Refusal when the printed channel is not 1–16 */
    public static int wireChannel(int printed) {
        return back("channel", printed, 1, 15);
    }

    /** A strip, or a place in a list, as the machine prints it. */
    public int place(int place) {
        return place + firstPlace;
    }

    /** @throws Refusal when the machine has no such place */
    public int placeFrom(int printed) {
        return back("place", printed, firstPlace, MOST);
    }

    // ---- programs

    /** The count of a program as this machine has it, without its banks' letters. */
    public int counted(int wireProgram) {
        return firstProgram + wireProgram;
    }

    /** {@code 10}, or {@code B07} where the machine counts in lettered banks. */
    public String program(int wire) {
        if (bankSize == 0) {
            return Integer.toString(wire + firstProgram);
        }
        char letter = (char) ('A' + wire / bankSize);
        return letter + (bankSize >= 100 ? "%03d" : "%02d").formatted(wire % bankSize + firstProgram);
    }

    /**
     * @param printed as the machine prints it; the zeros before a number within a bank may be left out
     * @throws Refusal when the machine cannot print that program
     */
    public int wireProgram(String printed) {
        String text = printed.strip();
        if (bankSize == 0) {
            return back("program", whole("program", text), firstProgram, MOST);
        }
        Matcher m = BANKED.matcher(text);
        if (m.matches()) {
            int within = Integer.parseInt(m.group(2)) - firstProgram;
            int wire = (Character.toUpperCase(m.group(1).charAt(0)) - 'A') * bankSize + within;
            if (within >= 0 && within < bankSize && wire <= MOST) {
                return wire;
            }
        }
        throw new Refusal(
                "program",
                "This machine's programs run from " + program(0) + " to " + program(MOST) + ", " + bankSize
                        + " to a letter; “" + text + "” is none of them.");
    }

    // ---- values

    /** A value of the wire, 0–127, as the machine prints it. */
    public String value(int wire) {
        return switch (values) {
            case FROM_0 -> Integer.toString(wire);
            case FROM_1 -> Integer.toString(wire + 1);
            case PER_CENT -> perCent(wire);
        };
    }

    private static String perCent(int wire) {
        BigDecimal exact = BigDecimal.valueOf(wire * 100L).divide(BigDecimal.valueOf(MOST), 6, RoundingMode.HALF_UP);
        BigDecimal whole = exact.setScale(0, RoundingMode.HALF_UP);
        BigDecimal shown = ofPerCent(whole) == wire ? whole : exact.setScale(1, RoundingMode.HALF_UP);
        return shown.toPlainString() + " %";
    }

    private static int ofPerCent(BigDecimal perCent) {
        return perCent.multiply(BigDecimal.valueOf(MOST))
                .divide(BigDecimal.valueOf(100), 0, RoundingMode.HALF_UP)
                .intValue();
    }

    /** @throws Refusal when the machine cannot print that value */
    public int wireValue(String printed) {
        String text = printed.strip();
        return switch (values) {
            case FROM_0 -> back("value", whole("value", text), 0, MOST);
            case FROM_1 -> back("value", whole("value", text), 1, MOST);
            case PER_CENT -> wirePerCent(text);
        };
    }

    private static int wirePerCent(String text) {
        String number = text.replace("%", "").replace(',', '.').strip();
        if (!number.matches("\\d{1,3}(\\.\\d{1,3})?") || new BigDecimal(number).compareTo(new BigDecimal(100)) > 0) {
            throw new Refusal("value", "This machine's values run from 0 to 100 %; “" + text + "” is none of them.");
        }
        return ofPerCent(new BigDecimal(number));
    }

    private static int whole(String field, String text) {
        if (!text.matches("\\d{1,9}")) {
            throw new Refusal(
                    field, "“" + text + "” is no " + field + " of this machine; it prints them as whole numbers.");
        }
        return Integer.parseInt(text);
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

    // ---- notes

    /** The machine's name for a note: {@code E0}, {@code F♯−2}, {@code G♭−2}. */
    public String note(int wire) {
        int octave = wire / 12 + firstOctave;
        return (flats ? FLATS : SHARPS)[wire % 12] + (octave < 0 ? "−" + -octave : octave);
    }

    /**
     * Reads a note as people type it: a number 0–127 of the wire, or a name with its octave such as {@code E0},
     * {@code d#-2}, {@code e♭3}, {@code Fis3}, {@code Es3}. H is the German name of B; B is never B flat here.
     *
     * @throws Refusal when it is neither, names no octave, or lies outside the 128 notes
     */
    public int wireNote(String typed) {
        String text = typed.strip()
                .toLowerCase(Locale.ROOT)
                .replace('−', '-')
                .replace('♯', '#')
                .replace('♭', 'b');
        if (text.matches("\\d{1,3}")) {
            return requireNote(typed, Integer.parseInt(text));
        }
        Matcher m = NOTE.matcher(text);
        if (!m.matches() || "s".equals(m.group(2)) && !text.startsWith("a") && !text.startsWith("e")) {
            throw new Refusal(
                    "note", "“" + typed + "” is no note; type a number 0 to 127 or a name such as E0 or F#-2.");
        }
        int step = text.startsWith("h") ? 11 : STEPS.indexOf(Character.toUpperCase(text.charAt(0)));
        String sign = m.group(2) == null ? "" : m.group(2);
        int accidental = sign.isEmpty() ? 0 : sign.equals("#") || sign.equals("is") ? 1 : -1;
        if (m.group(3) == null) {
            int low = Math.floorMod(step + accidental, 12);
            throw new Refusal(
                    "note",
                    "“" + typed + "” names no octave; this machine calls its lowest one " + note(low)
                            + ". Write the octave behind it.");
        }
        return requireNote(typed, (Integer.parseInt(m.group(3)) - firstOctave) * 12 + step + accidental);
    }

    private int requireNote(String typed, int wire) {
        if (wire < 0 || wire > MOST) {
            throw new Refusal(
                    "note",
                    "“" + typed + "” is outside this machine's notes, " + note(0) + " to " + note(MOST)
                            + " (0 to 127).");
        }
        return wire;
    }
}
