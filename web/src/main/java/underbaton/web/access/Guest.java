package underbaton.web.access;

/**
 * A device of the venue that was let in.
 *
 * @param digest SHA-256 of what it shows us
 * @param address from which it was let in
 * @param sinceMs when, ms since 1970
 * @param untilMs when it is no longer let in, ms since 1970; 0 for when it is taken away
 */
public record Guest(long id, String name, Role role, byte[] digest, String address, long sinceMs, long untilMs) {

    Visitor visitor() {
        return new Visitor(id, name, role);
    }

    boolean isHereAt(long nowMs) {
        return untilMs == 0 || nowMs < untilMs;
    }
}
