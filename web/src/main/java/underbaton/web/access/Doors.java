package underbaton.web.access;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.security.authorization.AuthorizationDecision;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AbstractHttpConfigurer;
import org.springframework.security.config.annotation.web.configurers.HeadersConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.core.context.SecurityContextImpl;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.intercept.AuthorizationFilter;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.csrf.CsrfTokenRequestAttributeHandler;
import org.springframework.security.web.util.matcher.RequestMatcher;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.util.WebUtils;

/**
 * Who asks, and whether he may: at this computer everything, through the venue's door what the {@link Table} gives to the role of the
 * device. Nothing is kept in sessions of the server: a device shows its own secret with each request, so that it is out with the next
 * one when it is taken away, and still in when the application has been started anew.
 */
@Configuration
class Doors {

    private static final RequestMatcher VENUE = VenueDoor::cameThrough;

    @Bean
    @Order(1)
    SecurityFilterChain venue(HttpSecurity http, Guests guests, Refused refused) throws Exception {
        CookieCsrfTokenRepository tokens = CookieCsrfTokenRepository.withHttpOnlyFalse();
        tokens.setCookieCustomizer(c -> c.secure(true).sameSite("Strict").path("/"));
        CsrfTokenRequestAttributeHandler plain = new CsrfTokenRequestAttributeHandler();
        // Read with each request: a page is there before its first change.
        plain.setCsrfRequestAttributeName(null);
        stateless(http.securityMatcher(VENUE))
                .csrf(c -> c.csrfTokenRepository(tokens).csrfTokenRequestHandler(plain))
                .addFilterBefore(knowing(guests), AuthorizationFilter.class)
                .exceptionHandling(e -> e.authenticationEntryPoint(refused).accessDeniedHandler(refused))
                .authorizeHttpRequests(r -> r.anyRequest()
                        .access((who, asked) -> new AuthorizationDecision(isAllowed(
                                Guests.visitor(who.get()),
                                Table.ofRequest(
                                        asked.getRequest().getMethod(),
                                        asked.getRequest().getRequestURI())))));
        return http.build();
    }

    @Bean
    @Order(2)
    SecurityFilterChain here(HttpSecurity http) throws Exception {
        stateless(http)
                .csrf(AbstractHttpConfigurer::disable)
                .addFilterBefore(filter((request, response) -> as(Visitor.HERE)), AuthorizationFilter.class)
                .authorizeHttpRequests(r -> r.anyRequest().permitAll());
        return http.build();
    }

    /** There are no names with passwords that a framework could ask for. */
    @Bean
    UserDetailsService nobody() {
        return name -> {
            throw new UsernameNotFoundException(name);
        };
    }

    private static boolean isAllowed(Optional<Visitor> visitor, Optional<Act> act) {
        return act.filter(a -> a == Act.COME_IN
                        || visitor.map(Visitor::role).filter(r -> r.may(a)).isPresent())
                .isPresent();
    }

    private static HttpSecurity stateless(HttpSecurity http) throws Exception {
        return http.sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .requestCache(AbstractHttpConfigurer::disable)
                .formLogin(AbstractHttpConfigurer::disable)
                .httpBasic(AbstractHttpConfigurer::disable)
                .logout(AbstractHttpConfigurer::disable)
                // They stand in a filter of ours, for what no chain sees too.
                .headers(HeadersConfigurer::disable);
    }

    private interface Does {
        void it(HttpServletRequest request, HttpServletResponse response);
    }

    private static OncePerRequestFilter knowing(Guests guests) {
        return filter((request, response) -> Optional.ofNullable(WebUtils.getCookie(request, Visitor.COOKIE))
                .map(Cookie::getValue)
                .flatMap(guests::of)
                .ifPresent(Doors::as));
    }

    private static void as(Visitor visitor) {
        SecurityContextHolder.setContext(new SecurityContextImpl(Guests.authentication(visitor)));
    }

    private static OncePerRequestFilter filter(Does does) {
        return new OncePerRequestFilter() {
            @Override
            protected boolean shouldNotFilterErrorDispatch() {
                return false;
            }

            @Override
            protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                    throws ServletException, IOException {
                does.it(request, response);
                chain.doFilter(request, response);
            }
        };
    }
}
