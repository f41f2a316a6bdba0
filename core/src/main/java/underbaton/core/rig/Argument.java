package underbaton.core.rig;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;

/**
 * The one blank of a phrase that a call fills.
 *
 * @param least smallest amount, in the unit; −∞ for no bound of its own
 * @param most largest amount
 */
public record Argument(Unit unit, double least, double most) {

    /** What the amount is counted in, and how much of it there is. */
    public enum Unit {
        /** The wire's value, told in the machine's own way of printing values. */
        VALUE("value", 0, 127),
        PER_CENT("per cent", 0, 100),
        /** Through the machine's {@link Levels}. */
        DECIBELS("decibels", Double.NEGATIVE_INFINITY, 99),
        /** −100 left, 0 centre, 100 right. */
        PAN("pan", -100, 100),
        /** Spread evenly over the values 0–127. */
        SECONDS("seconds", 0, 10),
        /** Open Sound Control only. */
        TEXT("text", 0, 0),
        SWITCH("on or off", 0, 1);

        private final String words;
        private final double least;
        private final double most;

        Unit(String words, double least, double most) {
            this.words = words;
            this.least = least;
            this.most = most;
        }

        /** As it is typed. */
        public String words() {
            return words;
        }

        /** An amount of it, or its name where any would do. */
        public String example() {
            return this == DECIBELS ? "−10 dB" : words;
        }
    }

    private static final int FULL = 127;
    private static final int CENTRE = 64;
    private static final Pattern WRITTEN = Pattern.compile("([a-z ]+?)(?: ([-−]?[\\d.]+|−∞) to ([-−]?[\\d.]+))?");
    private static final Pattern SIDE = Pattern.compile("([lr])\\s*(\\d{1,3})|(\\d{1,3})\\s*([lr])");
    /** Texts that no sign in them could part, or be taken for something behind the amount. */
    private static final Pattern PLAIN_TEXT = Pattern.compile("(?:\\S[^\"+;@→\\n\\r]*\\S|[^\"+;@→\\s])?");

    private static final String NUMBER = "[-−+]?\\d{1,5}([.,]\\d{1,3})?";

    public Argument {
        if (!(least < most) && unit != Unit.TEXT) {
            throw new Refusal("argument", "An argument runs from a smaller to a larger amount; turn the two around.");
        }
        if (unit != Unit.SECONDS && (least < unit.least || most > unit.most)) {
            throw new Refusal(
                    "argument",
                    "In " + unit.words + " an argument runs from " + Amount.plain(unit.least) + " to "
                            + Amount.plain(unit.most) + " at most.");
        }
    }

    /** An amount in this unit, in all of its range. */
    public static Argument in(Unit unit) {
        return new Argument(unit, unit.least, unit.most);
    }

    /**
     * Reads what {@link #toString} writes: {@code decibels}, {@code value 10 to 100}, {@code seconds 0 to 5}.
     *
     * @throws Refusal when it is no unit
     */
    public static Argument of(String text) {
        Matcher m = WRITTEN.matcher(text.strip().toLowerCase(Locale.ROOT));
        if (m.matches()) {
            for (Unit unit : Unit.values()) {
                if (unit.words.equals(m.group(1))) {
                    return m.group(2) == null
                            ? in(unit)
                            : new Argument(unit, Levels.read(m.group(2)), Levels.read(m.group(3)));
                }
            }
        }
        throw new Refusal("argument", "“" + text + "” is no argument; write for example: decibels, or seconds 0 to 5.");
    }

    @Override
    public String toString() {
        boolean whole = least == unit.least && most == unit.most;
        return whole ? unit.words : unit.words + " " + Amount.plain(least) + " to " + Amount.plain(most);
    }

    // ---- amounts in words

    /**
     * Reads an amount as it is typed into a cell: {@code −10 dB}, {@code off} and {@code unity} for levels, {@code 50 %}, {@code L30},
     * {@code -30} or {@code C} for pan, {@code 2 s}, {@code on} or {@code 1}.
     *
     * @throws Refusal when it is none, or out of range
     */
    public Amount read(String typed, Numbering numbering, Levels levels) {
        String text = typed.strip();
        if (unit == Unit.TEXT) {
            return new Amount.Text(Quoted.is(text) ? Quoted.read(text) : text);
        }
        double number = number(text, numbering).orElseThrow(() -> new Refusal("cell", wanted(text, numbering)));
        boolean within = number >= least && number <= most;
        if (!within) {
            throw new Refusal(
                    "cell",
                    "This runs from " + write(new Amount.Measure(Math.max(least, lowest(levels))), numbering) + " to "
                            + write(new Amount.Measure(most(levels)), numbering) + "; “" + text + "” is outside it.");
        }
        if (unit == Unit.DECIBELS) {
            levels.value(number);
        }
        return new Amount.Measure(number);
    }

    /** Whether its amounts can be moved at all. */
    public boolean moves() {
        return unit != Unit.TEXT && unit != Unit.SWITCH;
    }

    /** Whether it takes an amount, which may have been written for another unit or a wider range. */
    public boolean takes(Amount amount, Levels levels) {
        if (unit == Unit.TEXT || !(amount instanceof Amount.Measure measure)) {
            return unit == Unit.TEXT && amount instanceof Amount.Text;
        }
        double value = measure.value();
        boolean within = value >= least && value <= most;
        return switch (unit) {
            case VALUE, SWITCH -> within && value == Math.rint(value);
            case DECIBELS -> within && isSaid(value, levels);
            default -> within;
        };
    }

    private static boolean isSaid(double decibels, Levels levels) {
        try {
            levels.value(decibels);
            return true;
        } catch (Refusal outside) {
            return false;
        }
    }

    /** In what range it is said: {@code −∞ dB to 10 dB}. */
    public String range(Numbering numbering, Levels levels) {
        return switch (unit) {
            case TEXT -> "a text";
            case SWITCH -> "on or off";
            default ->
                write(new Amount.Measure(Math.max(least, lowest(levels))), numbering) + " to "
                        + write(new Amount.Measure(most(levels)), numbering);
        };
    }

    /** What may be typed, with a way to get there where there is one; empty where the range says all. */
    public String example(Numbering numbering) {
        return switch (unit) {
            case VALUE -> numbering.value(100) + ", or " + numbering.value(100) + " in 3 s";
            case PER_CENT -> "80 %, or 80 % in 3 s";
            case DECIBELS -> "−15 dB, −15 dB in 3 s, or off";
            case PAN -> "L30, C, or R30 in 2 bars";
            case SECONDS -> "2.5 s";
            case TEXT, SWITCH -> "";
        };
    }

    /** Whether a text is an amount, in or out of range. */
    public boolean isAmount(String text, Numbering numbering) {
        try {
            return number(text.strip(), numbering).isPresent();
        } catch (Refusal notInRange) {
            return true;
        }
    }

    private double lowest(Levels levels) {
        return unit == Unit.DECIBELS ? levels.lowest() : least;
    }

    private double most(Levels levels) {
        return unit == Unit.DECIBELS ? Math.min(most, levels.highest()) : most;
    }

    private Optional<Double> number(String text, Numbering numbering) {
        String low = text.toLowerCase(Locale.ROOT);
        return switch (unit) {
            case VALUE ->
                low.matches("[\\d.,]+ ?%?") ? Optional.of((double) numbering.wireValue(text)) : Optional.empty();
            case PER_CENT -> plain(low.replace("%", ""));
            case DECIBELS -> decibels(low.replaceAll("db$", "").strip());
            case PAN -> pan(low);
            case SECONDS -> plain(low.replaceAll(" ?s(ec|econds?)?$", ""));
            case SWITCH ->
                low.matches("on|1") ? Optional.of(1.0) : low.matches("off|0") ? Optional.of(0.0) : Optional.empty();
            case TEXT -> Optional.empty();
        };
    }

    private static Optional<Double> plain(String text) {
        String number = text.strip();
        return number.matches(NUMBER) ? Optional.of(Levels.read(number)) : Optional.empty();
    }

    private static Optional<Double> decibels(String text) {
        if (text.equals("unity")) {
            return Optional.of(0.0);
        }
        return text.matches("[-−]?\\s*(∞|inf(inity)?|oo)|off")
                ? Optional.of(Double.NEGATIVE_INFINITY)
                : plain(text.replaceAll("^([-−])\\s+", "$1"));
    }

    private static Optional<Double> pan(String text) {
        if (text.matches("c|centre|center|0")) {
            return Optional.of(0.0);
        }
        Matcher side = SIDE.matcher(text);
        if (!side.matches() && text.matches(NUMBER)) {
            return plain(text);
        }
        if (!side.matches()) {
            return text.equals("l") ? Optional.of(-100.0) : text.equals("r") ? Optional.of(100.0) : Optional.empty();
        }
        boolean letterFirst = side.group(1) != null;
        double away = Double.parseDouble(side.group(letterFirst ? 2 : 3));
        return Optional.of(side.group(letterFirst ? 1 : 4).equals("l") ? -away : away);
    }

    private String wanted(String text, Numbering numbering) {
        String example =
                switch (unit) {
                    case VALUE -> numbering.value(100);
                    case PER_CENT -> "80 %";
                    case DECIBELS -> "-10 dB";
                    case PAN -> "L30, C or R30";
                    case SECONDS -> "2.5 s";
                    case SWITCH -> "on or off";
                    case TEXT -> "a text";
                };
        return text.isEmpty()
                ? "This phrase takes an amount; write it behind the name, such as: " + example + "."
                : "“" + text + "” is no amount for this phrase; write for example: " + example + ".";
    }

    /** {@code −10 dB}, {@code 80 %}, {@code L30}: as {@link #read} takes it back. */
    public String write(Amount amount, Numbering numbering) {
        if (amount instanceof Amount.Text text) {
            return PLAIN_TEXT.matcher(text.text()).matches() ? text.text() : Quoted.write(text.text());
        }
        double value = ((Amount.Measure) amount).value();
        return switch (unit) {
            case VALUE -> numbering.value((int) value);
            case PER_CENT -> Amount.plain(value) + " %";
            case DECIBELS -> Levels.tell(value);
            case PAN -> value == 0 ? "C" : (value < 0 ? "L" : "R") + Amount.plain(Math.abs(value));
            case SECONDS -> Amount.plain(value) + " s";
            case SWITCH -> value > 0 ? "on" : "off";
            case TEXT -> "";
        };
    }

    // ---- amounts on the wire

    /**
     * The message with the amount in its blank.
     *
     * @param open whose value, or last OSC argument, is the blank
     */
    public Message fill(Message open, Amount amount, Levels levels) {
        if (open instanceof OscMessage osc) {
            List<Object> arguments = osc.arguments();
            List<Object> filled = new ArrayList<>(arguments.subList(0, arguments.size() - 1));
            filled.add(oscValue(amount));
            return new OscMessage(osc.address(), filled);
        }
        return withValue(open, amount instanceof Amount.Measure m ? wire(m.value(), levels) : 0);
    }

    /**
     * A MIDI message with another value.
     *
     * @param value 0–127
     */
    public static Message withValue(Message open, int value) {
        if (open instanceof NoteOn m) {
            return new NoteOn(m.channel(), m.note(), value);
        } else if (open instanceof ControlChange m) {
            return new ControlChange(m.channel(), m.controller(), value);
        } else if (open instanceof ProgramChange m) {
            return new ProgramChange(m.channel(), value);
        } else if (open instanceof BankProgram m) {
            return new BankProgram(m.channel(), m.bank(), value);
        } else if (open instanceof ChannelPressure m) {
            return new ChannelPressure(m.channel(), value);
        } else if (open instanceof PolyPressure m) {
            return new PolyPressure(m.channel(), m.note(), value);
        } else if (open instanceof PitchBend m) {
            return new PitchBend(m.channel(), bend(value));
        }
        return open;
    }

    /** Centre stays centre, and full is the highest bend. */
    private static int bend(int value) {
        int highest = 2 * PitchBend.CENTRE - 1;
        return value <= CENTRE
                ? value * PitchBend.CENTRE / CENTRE
                : PitchBend.CENTRE + (value - CENTRE) * (highest - PitchBend.CENTRE) / (FULL - CENTRE);
    }

    private int wire(double amount, Levels levels) {
        return (int) Math.round(exact(amount, levels));
    }

    /**
     * An amount on the wire's scale, not yet rounded to one of its values.
     *
     * @return 0–127
     */
    public double exact(double amount, Levels levels) {
        return switch (unit) {
            case VALUE -> amount;
            case PER_CENT -> amount / 100 * FULL;
            case DECIBELS -> levels.exact(amount);
            case PAN -> CENTRE + amount / 100 * (amount < 0 ? CENTRE : FULL - CENTRE);
            case SECONDS -> (amount - least) / (most - least) * FULL;
            case SWITCH -> amount * FULL;
            case TEXT -> 0;
        };
    }

    /**
     * The other way round: the amount that stands at a place of the wire's scale.
     *
     * @param exact 0–127
     */
    public double amountAt(double exact, Levels levels) {
        return switch (unit) {
            case VALUE -> exact;
            case PER_CENT -> exact * 100 / FULL;
            case DECIBELS -> levels.decibels(exact);
            case PAN -> (exact - CENTRE) * 100 / (exact < CENTRE ? CENTRE : FULL - CENTRE);
            case SECONDS -> least + exact / FULL * (most - least);
            case SWITCH -> exact / FULL;
            case TEXT -> 0;
        };
    }

    /**
     * Where a control stands of which a message speaks that has its value in the blank.
     *
     * @return 0–127, not rounded; empty where no number came
     */
    public OptionalDouble exactIn(Message said, Levels levels) {
        if (said instanceof OscMessage osc) {
            List<Object> arguments = osc.arguments();
            boolean number = !arguments.isEmpty() && arguments.get(arguments.size() - 1) instanceof Number;
            double value = number ? ((Number) arguments.get(arguments.size() - 1)).doubleValue() : Double.NaN;
            return Double.isNaN(value) ? OptionalDouble.empty() : OptionalDouble.of(within(exactOfOsc(value, levels)));
        }
        if (said instanceof PitchBend bend) {
            return OptionalDouble.of(bend.bend() * (double) CENTRE / PitchBend.CENTRE);
        }
        for (int value = 0; value <= FULL; value++) {
            if (withValue(said, value).equals(said)) {
                return OptionalDouble.of(value);
            }
        }
        return OptionalDouble.empty();
    }

    private double exactOfOsc(double value, Levels levels) {
        return switch (unit) {
            case PER_CENT, PAN -> exact(value * 100, levels);
            case DECIBELS -> value <= levels.lowest() ? 0 : levels.exact(Math.min(levels.highest(), value));
            default -> exact(value, levels);
        };
    }

    private static double within(double exact) {
        return Math.max(0, Math.min(FULL, exact));
    }

    /** Per cent as 0–1 and pan as −1–1, as floats; values and switches whole; decibels and seconds as they are. */
    private Object oscValue(Amount amount) {
        if (amount instanceof Amount.Text text) {
            return text.text();
        }
        double value = ((Amount.Measure) amount).value();
        return switch (unit) {
            case VALUE, SWITCH -> (int) value;
            case PER_CENT, PAN -> (float) (value / 100);
            default -> (float) value;
        };
    }
}
