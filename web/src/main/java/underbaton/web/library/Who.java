package underbaton.web.library;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Duration;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.stereotype.Component;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.util.WebUtils;

/**
 * Which browser an edit comes from, so that undo takes back one's own: a name by chance that it keeps. It is no secret and gives no
 * rights.
 */
@Component
public class Who extends OncePerRequestFilter {

    /** The house itself: what is done by no browser. */
    public static final String NOBODY = "";

    private static final String COOKIE = "baton-who";
    private static final Duration KEPT = Duration.ofDays(400);
    private static final String NAME = "[0-9a-f]{16}";

    /** Whose request the calling thread is at; {@link #NOBODY} outside of requests. */
    public static String asks() {
        return RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes request
                ? name(request.getRequest()).orElse(NOBODY)
                : NOBODY;
    }

    private static Optional<String> name(HttpServletRequest request) {
        return Optional.ofNullable(WebUtils.getCookie(request, COOKIE))
                .map(Cookie::getValue)
                .filter(v -> v.matches(NAME));
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String wanted = request.getHeader(HttpHeaders.ACCEPT);
        boolean page = request.getMethod().equals("GET") && wanted != null && wanted.contains("text/html");
        if (page && name(request).isEmpty()) {
            String name = UUID.randomUUID().toString().replace("-", "").substring(0, 16);
            // Our scripts read it: the drawing of what undo would take back is one for all browsers.
            response.addHeader(
                    HttpHeaders.SET_COOKIE,
                    ResponseCookie.from(COOKIE, name)
                            .path("/")
                            .sameSite("Strict")
                            .maxAge(KEPT)
                            .build()
                            .toString());
        }
        chain.doFilter(request, response);
    }
}
