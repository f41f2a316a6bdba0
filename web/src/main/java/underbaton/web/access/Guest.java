package underbaton.web.access;

import java.util.HashSet;
import java.util.Set;

/**
 * A device of the venue that was let in.
 *
 * @param digest SHA-256 of what it shows us
 * @param address from which it was let in
 * @param sinceMs when, ms since 1970
 * @param untilMs when it is no longer let in, ms since 1970; 0 for when it is taken away
 * @param pages of hand cues that it was given; of a show of which it was given none it may work all
 */
public record Guest(
        long id,
        String name,
        Role role,
        byte[] digest,
        String address,
        long sinceMs,
        long untilMs,
        Set<GivenPage> pages) {

    Visitor visitor() {
        return new Visitor(id, name, role, pages);
    }

    Guest with(Role other) {
        return new Guest(id, name, other, digest, address, sinceMs, untilMs, pages);
    }

    /** With those pages of a show alone. */
    Guest with(int showId, Set<Integer> pageIds) {
        Set<GivenPage> given = new HashSet<>(pages);
        given.removeIf(p -> p.showId() == showId);
        pageIds.forEach(p -> given.add(new GivenPage(showId, p)));
        return new Guest(id, name, role, digest, address, sinceMs, untilMs, Set.copyOf(given));
    }

    boolean isHereAt(long nowMs) {
        return untilMs == 0 || nowMs < untilMs;
    }
}
