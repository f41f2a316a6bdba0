package underbaton.web.kernel;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URI;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Answers our own pages alone. A page from elsewhere that is open in the same browser must not be able to fire a cue: requests under
 * another host name, and changes from another origin, are refused.
 */
@Component
class SameOrigin extends OncePerRequestFilter {

    private static final Set<String> OUR_NAMES = Set.of("127.0.0.1", "localhost", "[::1]");

    private final List<OwnNames> elsewhere;

    SameOrigin(List<OwnNames> elsewhere) {
        this.elsewhere = elsewhere;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        boolean changes =
                !request.getMethod().equals("GET") && !request.getMethod().equals("HEAD");
        Set<String> names = names(request);
        if (!names.contains(request.getServerName()) || changes && !fromOurPage(request, names)) {
            response.sendError(HttpServletResponse.SC_FORBIDDEN, "This address answers pages of this machine alone.");
            return;
        }
        chain.doFilter(request, response);
    }

    private Set<String> names(HttpServletRequest request) {
        return elsewhere.stream()
                .map(e -> e.of(request))
                .filter(names -> !names.isEmpty())
                .findFirst()
                .orElse(OUR_NAMES);
    }

    /** Browsers name the origin of every change; other programs name none. */
    private static boolean fromOurPage(HttpServletRequest request, Set<String> names) {
        String origin = request.getHeader("Origin");
        if (origin == null) {
            return true;
        }
        try {
            URI from = URI.create(origin);
            // Sandboxed pages call themselves “null”, which is an address without a host.
            return from.getHost() != null
                    && names.contains(from.getHost())
                    && from.getPort() == request.getServerPort();
        } catch (IllegalArgumentException nonsense) {
            return false;
        }
    }
}
