package underbaton.web.live;

import java.security.Principal;
import java.util.function.Supplier;

/** Who may give which orders over a browser's line, and see what. Any thread may ask; nothing waits. */
public interface Admission {

    /** @param who opened the line; null where nobody is known */
    boolean mayGive(Principal who, String order);

    /** @param topic of what is drawn */
    boolean maySee(Principal who, String topic);

    /** Whether somebody comes from elsewhere in the venue: then he gets a share of the lines, and no more. */
    boolean isGuest(Principal who);

    /** Does something in the name of who opened the line. */
    <T> T as(Principal who, Supplier<T> work);
}
