package underbaton.web.access;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpHeaders;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.web.AuthenticationEntryPoint;
import org.springframework.security.web.access.AccessDeniedHandler;
import org.springframework.stereotype.Component;
import underbaton.web.live.Painting;

/** What somebody is told who is not let in, or may not do what he asks: pages lead to the door, all else is a notice. */
@Component
class Refused implements AuthenticationEntryPoint, AccessDeniedHandler {

    private final Painting painting;

    Refused(Painting painting) {
        this.painting = painting;
    }

    @Override
    public void commence(HttpServletRequest request, HttpServletResponse response, AuthenticationException cause)
            throws IOException {
        String wanted = request.getHeader(HttpHeaders.ACCEPT);
        boolean page = request.getMethod().equals("GET") && wanted != null && wanted.contains("text/html");
        if (page) {
            response.sendRedirect("/come-in");
            return;
        }
        tell(
                response,
                HttpServletResponse.SC_UNAUTHORIZED,
                "This device is not let in here, or no longer. Reload the page to ask at the door.");
    }

    @Override
    public void handle(HttpServletRequest request, HttpServletResponse response, AccessDeniedException cause)
            throws IOException {
        String words = Visitor.asks()
                .map(v -> "As " + v.role().word() + " (" + v.role().words()
                        + ") this cannot be done. Whoever runs the show can give this device another role.")
                .orElse("This page is older than the door. Reload it, and try again.");
        tell(response, HttpServletResponse.SC_FORBIDDEN, words);
    }

    private void tell(HttpServletResponse response, int status, String words) throws IOException {
        response.setStatus(status);
        response.setContentType("text/html;charset=UTF-8");
        response.getOutputStream()
                .write(painting.of("page/notice", "notice", Map.of("words", words, "fields", "", "more", List.of()))
                        .getBytes(StandardCharsets.UTF_8));
    }
}
