package underbaton.web.library;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Map;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import underbaton.web.live.Subjects;

/** Whatever belongs to a show that is not there is not there, whichever part of it an address names and whatever it forgets. */
@Configuration
class ShowIsThere implements WebMvcConfigurer, HandlerInterceptor, Subjects {

    private final Shows shows;

    ShowIsThere(Shows shows) {
        this.shows = shows;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).addPathPatterns("/shows/*/**");
    }

    @Override
    public boolean isThere(int showId) {
        return shows.find(showId).isPresent();
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        boolean reads = request.getMethod().equals("GET");
        Object variables = request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE);
        Object id = variables instanceof Map<?, ?> named ? named.get("showId") : null;
        if (reads
                && id instanceof String typed
                && typed.matches("\\d{1,9}")
                && !shows.isThere(Integer.parseInt(typed))) {
            throw new NoSuchShow();
        }
        return true;
    }
}
