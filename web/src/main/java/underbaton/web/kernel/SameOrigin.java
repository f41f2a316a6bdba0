package underbaton.web.kernel;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URI;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Answers this machine's own pages alone. There is no sign-in yet, so a page from elsewhere that is open in the same
 * browser must not be able to fire a cue: requests under another host name, and changes from another origin, are
 * refused.
 */
@Component
class SameOrigin extends OncePerRequestFilter {

    private static final Set<String> OUR_NAMES = Set.of("127.0.0.1", "localhost", "[::1]");

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        boolean changes =
                !request.getMethod().equals("GET") && !request.getMethod().equals("HEAD");
        if (!OUR_NAMES.contains(request.getServerName()) || changes && !fromOurPage(request)) {
            response.sendError(HttpServletResponse.SC_FORBIDDEN, "This address answers pages of this machine alone.");
            return;
        }
        chain.doFilter(request, response);
    }

    /** Browsers name the origin of every change; other programs name none. */
    private static boolean fromOurPage(HttpServletRequest request) {
        String origin = request.getHeader("Origin");
        if (origin == null) {
            return true;
        }
        try {
            URI from = URI.create(origin);
            // Sandboxed pages call themselves “null”, which is an address without a host.
            return from.getHost() != null
                    && OUR_NAMES.contains(from.getHost())
                    && from.getPort() == request.getServerPort();
        } catch (IllegalArgumentException nonsense) {
            return false;
        }
    }
}
