package underbaton.core.rig;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;

/**
 * What a machine says when it has done a phrase, or when a hand has done the same at the machine itself.
 *
 * @param says one message, at once; where it is open, the amount of the call stands in its blank
 * @param withinMs how long after the phrase has left it may take, 50–60,000 ms
 */
public record Answer(Utterance says, int withinMs) {

    public static final int USUAL_MS = 1000;

    private static final int SHORTEST_MS = 50;
    private static final int LONGEST_MS = 60_000;
    private static final Pattern WITHIN = Pattern.compile("(?is)(.+?)\\s+within\\s+(\\d{1,6})\\s*ms\\s*");

    public Answer {
        if (says.afterMs() != 0 || says.forMs() != 0) {
            throw new Refusal("answer", "An answer is one message; it has no gap and no length.");
        }
        if (withinMs < SHORTEST_MS || withinMs > LONGEST_MS) {
            throw new Refusal("answer", "An answer comes within 50 to 60,000 ms, not " + withinMs + ".");
        }
    }

    /**
     * Reads what {@link #write} writes: {@code program 5}, {@code control 7 to ? within 300 ms}.
     *
     * @return empty for nothing
     * @throws Refusal when it is not one message
     */
    public static Optional<Answer> read(String typed, SpeechWording wording) {
        if (typed.isBlank()) {
            return Optional.empty();
        }
        Matcher within = WITHIN.matcher(typed);
        boolean timed = within.matches();
        try {
            Speech speech = wording.read(timed ? within.group(1) : typed);
            if (speech.all().count() != 1) {
                throw new Refusal("answer", "A machine answers with one message; write the one that says most.");
            }
            return Optional.of(new Answer(speech.on().get(0), timed ? Integer.parseInt(within.group(2)) : USUAL_MS));
        } catch (Refusal refusal) {
            throw new Refusal("answer", refusal.getMessage());
        }
    }

    /** As {@link #read} takes it. @param wording the machine's */
    public String write(SpeechWording wording) {
        String words = wording.write(new Speech(List.of(says), List.of()));
        return withinMs == USUAL_MS ? words : words + " within " + withinMs + " ms";
    }

    /**
     * What tells answers apart: a program is meant whatever bank was chosen before it, and a number in Open Sound Control is the same in
     * whatever type it is written.
     */
    public static Object key(Message message) {
        if (message instanceof BankProgram banked) {
            return new ProgramChange(banked.channel(), banked.program());
        }
        if (message instanceof OscMessage osc) {
            return List.of(
                    osc.address(),
                    osc.arguments().stream()
                            .map(a -> a instanceof Number n ? (Object) n.doubleValue() : a)
                            .toList());
        }
        return message;
    }
}
