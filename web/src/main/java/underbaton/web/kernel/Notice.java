package underbaton.web.kernel;

import jakarta.servlet.http.HttpServletResponse;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;

/** Words that come with what was done, shown for a moment on the page that asked. */
public final class Notice {

    private static final String HEADER = "Baton-Says";

    private Notice() {}

    /** A header carries no letters beyond ASCII, so they are written as in an address. */
    public static void with(HttpServletResponse response, String words) {
        response.setHeader(
                HEADER, URLEncoder.encode(words, StandardCharsets.UTF_8).replace("+", "%20"));
    }
}
