package underbaton.web.access;

import java.security.Principal;
import java.util.Optional;
import java.util.Set;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;

/**
 * Who asks: somebody at this computer itself, or a device of the venue that was let in. Immutable.
 *
 * @param id of the device; 0 for this computer
 * @param name of the device, as people know it; empty for this computer
 * @param pages of hand cues that it was given; of a show of which it was given none it may work all
 */
public record Visitor(long id, String name, Role role, Set<GivenPage> pages) implements Principal {

    /** By which a device is known; the name binds it to this host, all of its paths and TLS (RFC 6265bis, section 4.1.3.2). */
    public static final String COOKIE = "__Host-baton";

    /** Whoever sits at the computer that runs the show. */
    public static final Visitor HERE = new Visitor(0, "", Role.OPERATOR, Set.of());

    @Override
    public String getName() {
        return name;
    }

    /** Whose request or order the calling thread is at; empty outside of these. */
    public static Optional<Visitor> asks() {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        return who != null && who.getPrincipal() instanceof Visitor visitor ? Optional.of(visitor) : Optional.empty();
    }

    /** Whether it may work the keys of a page. */
    public boolean works(int showId, int pageId) {
        boolean all = role != Role.HANDS || pages.stream().noneMatch(p -> p.showId() == showId);
        return all || pages.contains(new GivenPage(showId, pageId));
    }

    /** What is done, with the name of who does it where that is a device of the venue. */
    public static String signed(String words) {
        return asks().filter(v -> v.id != 0).map(v -> words + ", " + v.name).orElse(words);
    }
}
