package underbaton.core.signal;

import java.util.OptionalDouble;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.midi.Message;

/**
 * What a relay has passed on so far. Immutable.
 *
 * @param number that came last
 * @param exact what was made of it, 0–127 of the wire's scale
 * @param leads whether the control is where this relay has put it
 * @param sinceNanos when the counting began, by the clock of the events
 * @param counts how often each message was sent since then
 */
public record Passed(
        OptionalDouble number, OptionalDouble exact, boolean leads, long sinceNanos, PMap<Message, Integer> counts) {

    public static final Passed NOTHING =
            new Passed(OptionalDouble.empty(), OptionalDouble.empty(), false, 0, HashTreePMap.empty());

    /** So often in a second no hand and no player says the same; it takes a loop less than 100 ms. */
    public static final int MOST_OF_THE_SAME = 20;

    private static final long SECOND_NANOS = 1_000_000_000L;
    private static final int MOST_COUNTED = 32;

    public Passed heard(double newNumber) {
        return new Passed(OptionalDouble.of(newNumber), exact, leads, sinceNanos, counts);
    }

    public Passed put(double newExact, boolean nowLeads) {
        return new Passed(number, OptionalDouble.of(newExact), nowLeads, sinceNanos, counts);
    }

    /** With one more message counted; a second later the counting begins anew. */
    public Passed sending(Message message, long nanos) {
        boolean over = nanos - sinceNanos >= SECOND_NANOS;
        PMap<Message, Integer> all = over ? HashTreePMap.empty() : counts;
        boolean counted = all.size() < MOST_COUNTED || all.containsKey(message);
        return new Passed(
                number,
                exact,
                leads,
                over ? nanos : sinceNanos,
                counted ? all.plus(message, all.getOrDefault(message, 0) + 1) : all);
    }

    /** Whether something seems to send back what the relay sends. */
    public boolean goesRound() {
        return goesRound(MOST_OF_THE_SAME);
    }

    /** The same, where so many of the same in a second may still be meant. */
    public boolean goesRound(int most) {
        return counts.values().stream().anyMatch(c -> c > most);
    }
}
