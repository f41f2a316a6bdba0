package underbaton.core.cue;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Cut;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Quoted;
import underbaton.core.rig.Refusal;

/**
 * One instruction inside a cue.
 *
 * @param deviceId the device that gets it
 * @param phraseId one of that device's phrases; 0 where nothing but words is there, see {@link #asWritten}
 * @param amount what fills the phrase's blank, if it has one
 * @param motion how the control gets there; empty for at once
 * @param offset after the cue's moment, or before it
 */
public record Call(int deviceId, int phraseId, Optional<Amount> amount, Optional<Motion> motion, Span offset) {

    private static final int LONGEST_WORDS = 200;
    private static final Pattern OFFSET = Pattern.compile("(?is)(.+?)(?: ?@ ?| after )" + Span.WRITTEN);

    /** Without an amount, at once, over no time. */
    public Call(int deviceId, int phraseId) {
        this(deviceId, phraseId, Optional.empty());
    }

    /** At once, over no time. */
    public Call(int deviceId, int phraseId, Optional<Amount> amount) {
        this(deviceId, phraseId, amount, Optional.empty(), Span.ZERO);
    }

    /**
     * What was pasted or taken in and is no phrase of the machine: it stands in its cell as it was written, and sends nothing until the
     * machine has such a phrase.
     */
    public static Call asWritten(int deviceId, String words) {
        return new Call(deviceId, 0, Optional.of(new Amount.Text(Cut.to(LONGEST_WORDS, words))));
    }

    /** Whether it is words alone. */
    public boolean isWords() {
        return phraseId == 0;
    }

    private String words() {
        return amount.map(a -> a instanceof Amount.Text text ? text.text() : "").orElse("");
    }

    /** The call that its words mean by now, where they mean one; else itself. */
    Call found(Device device) {
        try {
            return isWords() ? of(device, words()) : this;
        } catch (Refusal notYet) {
            return this;
        }
    }

    // Asked for at every call of a plan: those that a record makes for itself are slow until they are compiled well.
    @Override
    public boolean equals(Object other) {
        return this == other
                || other instanceof Call c
                        && names(c.deviceId, c.phraseId)
                        && amount.equals(c.amount)
                        && motion.equals(c.motion)
                        && offset.equals(c.offset);
    }

    @Override
    public int hashCode() {
        return 31 * (31 * deviceId + phraseId) + amount.hashCode();
    }

    /** Whether it calls this phrase of this machine. */
    public boolean names(int device, int phrase) {
        return deviceId == device && phraseId == phrase;
    }

    /**
     * Reads a call as it is typed: a phrase's name, and behind it the amount where it takes one, {@code Vox 1 -10 dB},
     * with or without an arrow between. Behind the amount may stand how the control gets there, {@code in 3 s, S-curve},
     * and at the end the offset, {@code @ 2 beats} or {@code after 2 s}. An unfinished name will do where it can mean one phrase only.
     *
     * @throws Refusal when no phrase is meant, or the amount is missing or wrong
     */
    public static Call of(Device device, String typedPart) {
        // What stands between quotation marks at the end is an amount, whatever it looks like.
        // A name that looks as if an offset stood behind it is a name first.
        Matcher late = OFFSET.matcher(device.phraseNamed(typedPart.strip()).isPresent() ? "" : typedPart.strip());
        Span offset = late.matches() ? Span.of(late.group(2) + " " + late.group(3)) : Span.ZERO;
        String part = late.matches() ? late.group(1) : typedPart;
        List<String> parted = Quoted.split(part, "→");
        String first = parted.get(0).strip();
        String name = Quoted.is(first) ? Quoted.read(first) : first;
        String typed =
                parted.size() > 1 ? part.substring(parted.get(0).length() + 1).strip() : "";
        Optional<Phrase> found = device.phraseNamed(name);
        if (found.isEmpty() && typed.isEmpty()) {
            found = longestBefore(device, name);
            typed = found.map(p -> name.substring(p.name().length()).strip()).orElse("");
        }
        Phrase phrase = found.orElseGet(() -> theOneMeant(device, name));
        if (phrase.argument().isEmpty() && !typed.isEmpty()) {
            throw new Refusal("cell", "“" + phrase.name() + "” takes no amount; write its name alone.");
        }
        if (phrase.argument().isEmpty()) {
            return new Call(device.id(), phrase.id(), Optional.empty(), Optional.empty(), offset);
        }
        Argument argument = phrase.argument().get();
        MotionWording.Parted amount = new MotionWording(device, argument).part(typed);
        return new Call(
                device.id(),
                phrase.id(),
                Optional.of(argument.read(amount.amount(), device.numbering(), device.levels())),
                amount.motion(),
                offset);
    }

    /** The calls of a cell one by one: they are parted by a plus sign between blanks, or by a semicolon; not inside of quotation marks. */
    public static List<String> parts(String cell) {
        return Quoted.split(cell, " + ", ";").stream()
                .map(String::strip)
                .filter(p -> !p.isEmpty())
                .toList();
    }

    /** What its cell says, as {@link #of} reads it; empty when its phrase is gone. */
    public String tell(Device device) {
        if (isWords()) {
            return words();
        }
        return device.phrase(phraseId).map(p -> tell(device, p)).orElse("");
    }

    private String tell(Device device, Phrase phrase) {
        String moved = phrase.argument()
                .flatMap(a -> motion.map(m -> new MotionWording(device, a).tell(m)))
                .orElse("");
        String said = device.tell(phrase, amount).substring(phrase.name().length());
        return written(phrase.name()) + said + moved + (offset.thousandths() == 0 ? "" : " @ " + offset);
    }

    /** A name that has a sign in it which parts a cell stands between quotation marks. */
    private static String written(String name) {
        return name.matches("[^\";@\\n\\r]*") ? name : Quoted.write(name);
    }

    /** The phrase with an argument whose name begins the text; the longest where several do. */
    private static Optional<Phrase> longestBefore(Device device, String text) {
        String lower = text.toLowerCase(Locale.ROOT) + " ";
        return device.phrases().stream()
                .filter(p -> p.argument().isPresent())
                .filter(p -> lower.startsWith(p.name().toLowerCase(Locale.ROOT) + " "))
                .max(Comparator.comparingInt(p -> p.name().length()));
    }

    /** The only phrase that an unfinished name can mean. */
    private static Phrase theOneMeant(Device device, String name) {
        String wanted = name.toLowerCase(Locale.ROOT);
        List<Phrase> close = device.phrases().stream()
                .filter(p -> p.name().toLowerCase(Locale.ROOT).contains(wanted))
                .sorted(Comparator.comparing(
                        p -> p.name().toLowerCase(Locale.ROOT).indexOf(wanted)))
                .toList();
        if (close.size() == 1) {
            return close.get(0);
        }
        String way = close.isEmpty()
                ? "Write it into the machine's phrasebook on the page Rig, or pick another."
                : "Did you mean “" + close.get(0).name() + "” or “"
                        + close.get(1).name() + "”?";
        throw new Refusal("cell", device.name() + " has no phrase “" + name + "”. " + way);
    }
}
