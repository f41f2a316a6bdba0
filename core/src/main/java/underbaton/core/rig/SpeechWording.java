package underbaton.core.rig;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.StringJoiner;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.midi.Message;

/**
 * Writes what a phrase says in words and reads it back, with a machine's own numbers. Around each message ({@link
 * Wording}) there may stand a gap before it and the length of a note, {@code after 50 ms note E0 for 200 ms}; a question
 * mark is the blank that a call fills, {@code control 7 to ?}; and a bar parts what switches on from what switches off.
 */
public final class SpeechWording {

    /** Room for the longest exclusive; nothing longer is looked at. */
    private static final int LONGEST = 250_000;

    private static final Pattern GAP = Pattern.compile("(?is)after (\\d{1,6}) ms (.+)");
    private static final Pattern LENGTH = Pattern.compile("(?is)(note .+?) for (\\d{1,6}) ms(.*)");

    private final Wording plain;
    private final Wording open;

    /** In the numbers of a machine. */
    public SpeechWording(Numbering numbering) {
        plain = new Wording(numbering);
        open = new Wording(numbering, true);
    }

    /** Channels as people say them. @param first the machine's own, 0–15 */
    public SpeechWording(Numbering numbering, int first) {
        plain = new Wording(numbering, false, OptionalInt.of(first));
        open = new Wording(numbering, true, OptionalInt.of(first));
    }

    /** As it is typed: for on, a stroke, for off. */
    public String write(Speech speech) {
        return write(speech.on()) + (speech.hasTwoStates() ? " | " + write(speech.off()) : "");
    }

    private String write(List<Utterance> utterances) {
        StringJoiner joined = new StringJoiner("; ");
        for (Utterance u : utterances) {
            String gap = u.afterMs() > 0 ? "after " + u.afterMs() + " ms " : "";
            String length = u.forMs() > 0 ? " for " + u.forMs() + " ms" : "";
            joined.add(gap + (u.open() ? open : plain).write(u.message()) + length);
        }
        return joined.toString();
    }

    /**
     * Reads messages parted by semicolons or line ends, and at most one bar.
     *
     * @throws Refusal naming the part that cannot be read
     */
    public Speech read(String typed) {
        Refusal.requireShort("words", typed, LONGEST);
        List<String> states = Quoted.split(typed, "|");
        if (states.size() > 2) {
            throw new Refusal("says", "A phrase has two states at most, with one bar between: on | off.");
        }
        List<Utterance> off = states.size() == 2 ? utterances(states.get(1)) : List.of();
        if (states.size() == 2 && off.isEmpty()) {
            throw new Refusal("says", "Behind the bar stands what switches off; write it, or take the bar away.");
        }
        return new Speech(utterances(states.get(0)), off);
    }

    private List<Utterance> utterances(String typed) {
        List<Utterance> utterances = new ArrayList<>();
        for (String part : Quoted.split(typed, ";", "\n")) {
            if (!part.isBlank()) {
                utterances.add(utterance(part.strip()));
            }
        }
        return utterances;
    }

    private Utterance utterance(String typed) {
        Matcher gap = GAP.matcher(typed);
        boolean waits = gap.matches();
        String said = waits ? gap.group(2) : typed;
        Matcher length = LENGTH.matcher(said);
        boolean ends = length.matches();
        String message = ends ? length.group(1) + length.group(3) : said;
        boolean blank = Quoted.split(message, "?").size() > 1;
        List<Message> read = (blank ? open : plain).read(message);
        return new Utterance(
                read.get(0),
                waits ? Integer.parseInt(gap.group(1)) : 0,
                ends ? Integer.parseInt(length.group(2)) : 0,
                blank);
    }
}
