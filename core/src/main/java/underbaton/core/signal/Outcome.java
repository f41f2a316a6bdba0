package underbaton.core.signal;

import java.util.List;

/**
 * What became of a signal.
 *
 * @param taken by which listeners, in their order; more than one where it is bound to several things
 * @param nearest the listener that could have meant it, and did not; empty when one took it, or none was near
 * @param why the nearest did not
 */
public record Outcome(Source source, Signal signal, List<Taken> taken, String nearest, String why) {

    /** @param did what was done, or why it was not yet: {@code GO}, {@code stop all: once more within three seconds} */
    public record Taken(int listenerId, String name, String did) {}

    /** Whether any listener took it. */
    public boolean isTaken() {
        return !taken.isEmpty();
    }
}
