package underbaton.web.live;

import java.security.Principal;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.socket.CloseStatus;
import org.springframework.web.socket.TextMessage;
import org.springframework.web.socket.WebSocketSession;
import org.springframework.web.socket.adapter.standard.StandardWebSocketSession;
import org.springframework.web.socket.config.annotation.EnableWebSocket;
import org.springframework.web.socket.config.annotation.WebSocketConfigurer;
import org.springframework.web.socket.config.annotation.WebSocketHandlerRegistry;
import org.springframework.web.socket.handler.TextWebSocketHandler;
import org.springframework.web.socket.server.standard.ServletServerContainerFactoryBean;
import tools.jackson.core.JacksonException;
import underbaton.core.rig.Refusal;

/**
 * The line of a browser: one WebSocket (RFC 6455) for all its pages, drawings one way, orders the other. Only pages of this
 * very address may open one.
 */
@Configuration
@EnableWebSocket
class LiveSocket extends TextWebSocketHandler implements WebSocketConfigurer {

    static final String PATH = "/live";
    private static final int LONGEST_MESSAGE = 8192;
    private static final int MOST_BROWSERS = 500;
    /** What the venue leaves is for the computer that runs the show. */
    private static final int MOST_OF_THE_VENUE = 400;

    private static final int MOST_OF_A_GUEST = 6;
    private static final int MOST_PAGES_OF_A_GUEST = 8;
    /** The number of an order begins with the number of the page that gave it. */
    private static final long ORDERS_OF_A_PAGE = 100_000;

    private static final long LONGEST_SILENCE_MILLIS = 60_000;

    private final Live live;
    private final Subjects subjects;
    private final List<Orders> orders;
    private final Admission admission;
    private final Map<String, Browser> browsers = new ConcurrentHashMap<>();

    LiveSocket(Live live, Subjects subjects, List<Orders> orders, Admission admission) {
        this.live = live;
        this.subjects = subjects;
        this.orders = orders;
        this.admission = admission;
    }

    @Override
    public void registerWebSocketHandlers(WebSocketHandlerRegistry registry) {
        registry.addHandler(this, PATH);
    }

    /** A browser says something every few seconds; one that does not is gone. */
    @Bean
    ServletServerContainerFactoryBean limits() {
        ServletServerContainerFactoryBean limits = new ServletServerContainerFactoryBean();
        limits.setMaxTextMessageBufferSize(LONGEST_MESSAGE);
        limits.setMaxBinaryMessageBufferSize(LONGEST_MESSAGE);
        limits.setMaxSessionIdleTimeout(LONGEST_SILENCE_MILLIS);
        return limits;
    }

    @Override
    public void afterConnectionEstablished(WebSocketSession session) throws Exception {
        Principal who = session.getPrincipal();
        boolean guest = admission.isGuest(who);
        if (browsers.size() >= (guest ? MOST_OF_THE_VENUE : MOST_BROWSERS) || guest && lines(who) >= MOST_OF_A_GUEST) {
            session.close(CloseStatus.SERVICE_OVERLOAD);
            return;
        }
        Browser browser = new Browser(
                ((StandardWebSocketSession) session).getNativeSession(),
                who,
                guest ? MOST_PAGES_OF_A_GUEST : Browser.MOST_PAGES);
        browsers.put(session.getId(), browser);
        live.came(browser);
    }

    private long lines(Principal who) {
        return browsers.values().stream()
                .filter(b -> Objects.equals(b.who(), who))
                .count();
    }

    @Override
    public void afterConnectionClosed(WebSocketSession session, CloseStatus status) {
        Browser browser = browsers.remove(session.getId());
        if (browser != null) {
            live.left(browser);
            orders.forEach(o -> o.gone(session.getId() + "/"));
        }
    }

    @Override
    protected void handleTextMessage(WebSocketSession session, TextMessage message) throws Exception {
        Browser browser = browsers.get(session.getId());
        if (browser == null) {
            return;
        }
        try {
            take(browser, session.getId(), Frames.read(message.getPayload()));
        } catch (JacksonException noMessage) {
            session.close(CloseStatus.BAD_DATA);
        }
    }

    private void take(Browser browser, String session, Frames.FromBrowser said) {
        if (said.order() != 0) {
            browser.answer(Frames.answer(
                    said.order(), allowed(browser, said, session + "/" + said.order() / ORDERS_OF_A_PAGE + "/")));
        } else if (said.page() != null) {
            List<String> topics = said.topics() == null ? List.of() : said.topics();
            if (topics.isEmpty()) {
                orders.forEach(o -> o.gone(session + "/" + said.page() + "/"));
            }
            boolean there = topics.isEmpty() || said.show() == 0 || subjects.isThere(said.show());
            Set<Live.Part> parts = !there
                    ? Set.of()
                    : topics.stream()
                            .filter(t -> admission.maySee(browser.who(), t))
                            .map(t -> new Live.Part(said.show(), t))
                            .collect(Collectors.toSet());
            live.shows(browser, browser.page(said.page(), parts));
            live.anew(parts);
            if (!there) {
                browser.answer(Frames.noSuchShow(said.show()));
            }
        }
    }

    /** @return why it was not done; empty when it was */
    private String allowed(Browser browser, Frames.FromBrowser said, String page) {
        String what = said.what() == null ? "" : said.what();
        return admission.mayGive(browser.who(), what)
                ? admission.as(browser.who(), () -> done(said, page))
                : "This device may not do that here; whoever runs the show can allow it under Shows, “the venue”.";
    }

    private String done(Frames.FromBrowser said, String page) {
        for (Orders some : orders) {
            try {
                if (some.take(said.what() == null ? "" : said.what(), said.show(), page)) {
                    return "";
                }
            } catch (Refusal refusal) {
                return refusal.getMessage();
            } catch (RuntimeException otherwise) {
                return "It was not done: " + some.words(otherwise);
            }
        }
        return "There is no such order; reload the page.";
    }
}
