package underbaton.web.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.BiConsumer;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import underbaton.core.signal.Deed;
import underbaton.web.UnderBaton;
import underbaton.web.live.Live;
import underbaton.web.live.Orders;

/**
 * Every role at every address that Spring knows, through the door as a device of the venue comes; every order of a browser's line, and
 * every part that it draws. What stands in no row fails here before it does anywhere else.
 */
class TableTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    /** What a caller, hands and a viewer may change: all of it. */
    private static final Map<Role, Set<String>> CHANGES = Map.of(
            Role.CALLER,
            Set.of(
                    "POST /leave",
                    "POST /shows/{showId}/desk/note",
                    "POST /shows/{showId}/desk/jump",
                    "POST /shows/{showId}/desk/seen",
                    "POST /shows/{showId}/desk/{order:[a-z]+}",
                    "POST /shows/{showId}/score/pause",
                    "POST /shows/{showId}/score/release",
                    "POST /shows/{showId}/score/nudge",
                    "POST /shows/{showId}/score/{itemId}/play"),
            Role.HANDS,
            Set.of("POST /leave", "POST /shows/{showId}/hands/keys/{keyId}/touch"),
            Role.VIEWER,
            Set.of("POST /leave"));

    /** Allowed to the operator, and true of no show: the door would be shut for the others, a simulated machine's list another one. */
    private static final Set<String> DOES_SOMETHING = Set.of("/venue/close", "/shows/{showId}/room/sort");

    private VenueAtHand venue;

    @BeforeEach
    void opens() {
        venue = new VenueAtHand(baton);
    }

    @AfterEach
    void shuts() {
        venue.close();
    }

    private static void everyMapping(BiConsumer<String, String> methodAndPattern) {
        baton.bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .keySet()
                .forEach(info -> {
                    Collection<RequestMethod> methods =
                            info.getMethodsCondition().getMethods();
                    List<RequestMethod> asked = methods.isEmpty() ? List.of(RequestMethod.GET) : List.copyOf(methods);
                    asked.forEach(m -> info.getPatternValues().forEach(p -> methodAndPattern.accept(m.name(), p)));
                });
    }

    /** An address of no show, no machine, no key: whoever is let through finds nothing there, and changes nothing. */
    private static String sample(String pattern) {
        return pattern.replace("{order:[a-z]+}", "go")
                .replaceAll("\\{whose:.*}$", "lx")
                .replaceAll("\\{[a-zA-Z]+}", "999999");
    }

    @Test
    void every_address_has_a_row() {
        Set<String> without = new TreeSet<>();
        everyMapping((method, pattern) -> {
            if (Table.ofRequest(method, sample(pattern)).isEmpty()) {
                without.add(method + " " + pattern);
            }
        });
        assertThat(without).isEmpty();
        assertThat(Table.ofRequest("GET", "/actuator/health")).isEmpty();
        assertThat(Table.ofRequest("DELETE", "/shows/1/book")).isEmpty();
        assertThat(Table.ofRequest("POST", "/shows/1/desk/go%2f")).isNotEqualTo(Optional.of(Act.CALL));
    }

    @Test
    void every_order_of_a_line_and_every_part_that_it_draws_has_a_row() {
        baton.bean("deskOrders", Orders.class).orders().keySet().forEach(word -> assertThat(Table.ofOrder(word))
                .as(word)
                .contains(Act.CALL));
        for (Deed deed : Deed.values()) {
            assertThat(Table.ofRequest("POST", "/shows/1/desk/" + deed.word())).contains(Act.CALL);
        }
        for (String word : List.of("touch", "hold", "let")) {
            assertThat(Table.ofOrder(word + " 12")).as(word).contains(Act.TOUCH);
            assertThat(Table.ofOrder(word + " 12 ")).as(word).isEmpty();
        }
        baton.bean(Live.class)
                .topics()
                .forEach(topic -> assertThat(Table.ofPart(topic)).as(topic).isPresent());
    }

    @Test
    void a_device_of_each_role_gets_what_its_row_says_and_nobody_else_gets_anything() throws Exception {
        HttpClient client = venue.client();
        Map<String, String> wrong = new TreeMap<>();
        Map<Role, Set<String>> changes = new TreeMap<>();
        List<String> asked = new ArrayList<>();
        for (Role role : Role.values()) {
            String token = venue.letIn(role);
            everyMapping((method, pattern) -> {
                if (role == Role.OPERATOR && DOES_SOMETHING.contains(pattern)) {
                    return;
                }
                int status = status(client, method, pattern, token);
                boolean may = role.may(Table.ofRequest(method, sample(pattern)).orElseThrow());
                boolean let = status != 401 && status != 403;
                asked.add(pattern);
                if (may != let) {
                    wrong.put(role + " " + method + " " + pattern, "" + status);
                }
                if (let && method.equals("POST") && !pattern.startsWith("/come-in")) {
                    changes.computeIfAbsent(role, r -> new TreeSet<>()).add(method + " " + pattern);
                }
            });
        }
        everyMapping((method, pattern) -> {
            int status = status(client, method, pattern, "");
            boolean comesIn = Table.ofRequest(method, sample(pattern)).orElseThrow() == Act.COME_IN;
            if (comesIn != (status != 401)) {
                wrong.put("nobody " + method + " " + pattern, "" + status);
            }
        });
        assertThat(asked).hasSizeGreaterThan(800);
        assertThat(wrong).isEmpty();
        CHANGES.forEach(
                (role, may) -> assertThat(changes.get(role)).as("%s", role).isEqualTo(may));
        assertThat(changes.get(Role.WRITER))
                .noneMatch(c ->
                        c.contains("/desk/") || c.endsWith("/fire") || c.endsWith("/touch") || c.contains("/venue"))
                .contains("POST /shows/{showId}/book/cues", "POST /shows/{showId}/rig/devices");
    }

    private int status(HttpClient client, String method, String pattern, String token) {
        try {
            // Whoever leaves is out for all that is asked behind.
            boolean leaves = pattern.equals("/leave");
            String shown = leaves && !token.isEmpty() ? venue.letIn(venue.roleOf(token)) : token;
            HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(venue.url(sample(pattern))))
                    .header("Cookie", Visitor.COOKIE + "=" + shown + "; XSRF-TOKEN=a-mark")
                    .header("X-XSRF-TOKEN", "a-mark")
                    .method(
                            method,
                            method.equals("POST")
                                    ? HttpRequest.BodyPublishers.ofString("")
                                    : HttpRequest.BodyPublishers.noBody());
            if (method.equals("POST")) {
                request.header("Content-Type", "application/x-www-form-urlencoded");
            }
            HttpResponse<String> response = client.send(request.build(), BodyHandlers.ofString());
            return response.statusCode();
        } catch (java.io.IOException unreachable) {
            throw new java.io.UncheckedIOException(unreachable);
        } catch (InterruptedException stopped) {
            throw new IllegalStateException(stopped);
        }
    }
}
