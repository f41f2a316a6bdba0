package underbaton.web.kernel;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Set;

/** Under which names this computer is reached, where that is not loopback. */
public interface OwnNames {

    /** The hosts that a request may name as the one it is for; none for a request that is no affair of this one. */
    Set<String> of(HttpServletRequest request);
}
