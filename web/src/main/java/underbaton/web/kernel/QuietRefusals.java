package underbaton.web.kernel;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpServletResponseWrapper;
import java.io.IOException;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * A refusal is an answer and no fault. A browser writes every answer of 4xx to a script into its console of errors, so the
 * scripts of our own pages get such an answer with the status 200 and the real one in a header. Everybody else gets the
 * status itself.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 20)
class QuietRefusals extends OncePerRequestFilter {

    /** What a script of our pages says of itself; htmx has a header of its own. */
    private static final String OURS = "Baton-Page";

    private static final String HTMX = "HX-Request";
    private static final String REFUSED = "Baton-Refused";

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return request.getHeader(OURS) == null && request.getHeader(HTMX) == null;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        chain.doFilter(request, new HttpServletResponseWrapper(response) {
            @Override
            public void setStatus(int status) {
                boolean refused = status >= 400 && status < 500;
                if (refused) {
                    setHeader(REFUSED, Integer.toString(status));
                }
                super.setStatus(refused ? SC_OK : status);
            }
        });
    }
}
