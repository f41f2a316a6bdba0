package underbaton.web.stage;

import java.util.stream.Collectors;
import java.util.stream.Stream;
import underbaton.core.rig.Device;

/**
 * How a device of the open show is doing, for the lamps of Rig and Desk.
 *
 * @param roundTrip printed with its unit; empty when it was not measured
 * @param loss how much was lost lately, with a comma before it; empty for nothing
 * @param lastHeard when it last said something that is a signal, printed; empty before the first
 * @param lastSent printed with its unit; empty before the first message
 * @param behind how many things it was not told while it was away
 * @param places where it stands in its own lists; empty where it has none
 * @param unanswered what it has not confirmed of what it was told, or says otherwise; empty for nothing
 * @param armed whether it takes part tonight
 * @param words what is wrong and what to do; empty where nothing is
 */
public record Lamp(
        Device device,
        boolean reached,
        String roundTrip,
        String loss,
        String lastHeard,
        String lastSent,
        String words,
        int behind,
        String places,
        String unanswered,
        boolean armed) {

    /** Whether nobody needs to look at it: reached, in time, with nothing missed. */
    public boolean well() {
        return armed && reached && behind == 0 && unanswered.isEmpty();
    }

    /** What is said of it for as long as it goes on; empty where what is measured is said. */
    public String steady() {
        if (!armed) {
            return "out tonight, gets nothing";
        }
        return reached ? "" : words;
    }

    /** One short line beside the lamp. */
    public String line() {
        if (!steady().isEmpty()) {
            return steady();
        }
        String trip = (roundTrip.isEmpty() ? "reached" : roundTrip) + loss;
        return Stream.of(trip, lastSent, lastHeard, words)
                .filter(s -> !s.isEmpty())
                .collect(Collectors.joining(", "));
    }
}
