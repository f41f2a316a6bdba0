package underbaton.web.venue;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Dialog;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.net.http.WebSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.cert.X509Certificate;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLSocket;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509TrustManager;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;
import underbaton.core.cue.Hands;
import underbaton.core.traffic.Traffic;
import underbaton.web.UnderBaton;
import underbaton.web.access.Role;
import underbaton.web.access.VenueAtHand;
import underbaton.web.access.VenueDoor;
import underbaton.web.access.Visitor;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/** The door as people use it: one at the computer that runs the show, others before the door, some of them strangers. */
class VenueTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private VenueAtHand venue;
    private int show;

    @BeforeEach
    void opens() {
        show = baton.show("The Ferryman’s Lantern");
        baton.bean(Stage.class).open(show);
        venue = new VenueAtHand(baton);
    }

    @AfterEach
    void shuts() {
        venue.close();
    }

    private Page phone() {
        return baton.browser(412, 860);
    }

    @Test
    void a_phone_asks_is_let_in_gives_GO_and_is_out_within_a_second_of_being_taken_away() {
        Page operator = baton.open("/venue");
        Page phone = phone();
        String number = venue.asks(phone, "Anna's phone");
        Locator at = operator.locator("[data-device=\"Anna's phone\"]");
        assertThat(at.locator(".number")).hasText(number);
        at.getByLabel("Role of Anna's phone").selectOption("CALLER");
        at.getByText("Let in").click();
        assertThat(operator.locator("[data-guest=\"Anna's phone\"]")).isVisible();

        phone.waitForURL("**/call");
        until("the line", () -> (boolean) phone.evaluate("!document.body.classList.contains('line-gone')"));
        phone.locator(".hand .go").click();
        until("GO, with the name of who gave it, in the log", () -> baton.bean(Traffic.class).after(0, 100_000).stream()
                .anyMatch(e -> e.toString().contains("GO, Anna's phone")));

        operator.getByLabel("Take Anna's phone away").click();
        assertThat(operator.locator("[data-guest=\"Anna's phone\"]")).hasCount(0);
        assertThat(phone.locator("body")).hasClass(Pattern.compile("line-gone"));
        phone.reload();
        assertThat(phone).hasURL(venue.url("/come-in"));
    }

    @Test
    void a_tablet_works_the_pages_of_hand_cues_that_it_was_given_and_no_others() throws Exception {
        Page tablet = baton.browser(820, 1180);
        venue.comesIn(tablet, Role.HANDS, "/start");
        assertThat(tablet).hasURL(venue.url("/hands"));
        assertThat(tablet.locator(".pages a")).hasText(new String[] {"Night", "Band"});
        Page operator = baton.open("/venue");
        Locator works = operator.locator("[data-guest=hands] .works");
        works.locator("summary").click();
        works.getByLabel("Band").check();
        works.getByText("Give these alone").click();
        assertThat(works.locator("summary")).hasText("Band");

        // What it may is asked at each touch, whatever its page still shows.
        tablet.navigate(venue.url("/hands"));
        assertThat(tablet.locator(".pages")).hasCount(0);
        Locator key = tablet.locator(".key").first();
        assertThat(key).isEnabled();
        key.dispatchEvent("pointerdown");
        key.dispatchEvent("pointerup");
        String name = key.locator("b").textContent();
        until("done, and by whom", () -> isLogged("hand: " + name + ", hands"));
        int rain = key("Rain");
        key.evaluate("(key, id) => (key.dataset.key = id)", rain);
        key.dispatchEvent("pointerdown");
        key.dispatchEvent("pointerup");
        assertThat(tablet.locator("#notice")).containsText("was not given the page “Night”");
        assertThat(isLogged("hand: Rain")).isFalse();

        works.locator("summary").click();
        works.getByLabel("Band").uncheck();
        works.getByText("Give these alone").click();
        assertThat(works.locator("summary")).hasText("all pages");
        tablet.navigate(venue.url("/hands?page=" + pageOf(rain)));
        Locator held = tablet.locator(".key[data-key='" + rain + "']");
        assertThat(held).isEnabled();
        held.dispatchEvent("pointerdown");
        assertThat(held).hasClass(Pattern.compile("\\bon\\b"));
        held.dispatchEvent("pointerup");
        assertThat(held).hasClass(Pattern.compile("\\boff\\b"));
        assertThat(new AxeBuilder(tablet).analyze().getViolations()).isEmpty();
    }

    private int key(String name) {
        return baton.bean(Shows.class).get(show).hands().stream()
                .flatMap(p -> p.keys().stream())
                .filter(k -> k.name().equals(name))
                .findFirst()
                .orElseThrow()
                .id();
    }

    private int pageOf(int key) {
        return Hands.pageOf(baton.bean(Shows.class).get(show), key)
                .orElseThrow()
                .id();
    }

    private static boolean isLogged(String words) {
        return baton.bean(Traffic.class).after(0, 100_000).stream()
                .anyMatch(e -> e.toString().contains(words));
    }

    @Test
    void a_writer_writes_and_gives_no_GO() {
        Page page = baton.browser();
        venue.comesIn(page, Role.WRITER, "/shows/" + show + "/desk");
        until("the line", () -> (boolean) page.evaluate("!document.body.classList.contains('line-gone')"));
        long before = baton.bean(Traffic.class).last();
        page.keyboard().press("Enter");
        assertThat(page.locator("#notice")).containsText("may not do that");
        assertThat(baton.bean(Traffic.class).after(before, 1000))
                .noneMatch(e -> e.toString().contains("GO"));
        page.navigate(venue.url("/shows/" + show + "/book"));
        page.locator("[data-cue]").first().waitFor();
        page.navigate(venue.url("/venue"));
        assertThat(page.locator("body")).containsText("As writer");
    }

    @Test
    void the_operator_comes_in_by_his_password_and_a_guess_is_told() {
        Page laptop = baton.browser();
        laptop.navigate(venue.url("/"));
        laptop.getByText("I am the operator").click();
        laptop.getByLabel("This computer is called").fill("FOH laptop");
        laptop.getByLabel("Password").fill("four words are good");
        laptop.getByText("Come in", new Page.GetByTextOptions().setExact(true)).click();
        assertThat(laptop.locator("#notice")).containsText("not the operator's password");
        laptop.getByLabel("Password").fill(VenueAtHand.PASSWORD);
        laptop.getByText("Come in", new Page.GetByTextOptions().setExact(true)).click();
        assertThat(laptop.locator(".spines")).isVisible();
        // A form that goes by itself shows its mark too.
        laptop.getByText("The Ferryman’s Lantern").first().click();
        laptop.waitForURL("**/book");
    }

    @Test
    void pages_of_the_door_can_be_read_by_all() {
        Page phone = phone();
        phone.navigate(venue.url("/come-in"));
        assertThat(UnderBaton.serious(new AxeBuilder(phone))).isEmpty();
        venue.asks(phone, "A phone");
        assertThat(UnderBaton.serious(new AxeBuilder(phone))).isEmpty();
        Page operator = baton.open("/venue");
        assertThat(UnderBaton.serious(new AxeBuilder(operator))).isEmpty();
        operator.locator("[data-device='A phone']").getByText("Refuse").click();
        assertThat(phone.locator(".answer")).containsText("was not let in");
        operator.onceDialog(Dialog::accept);
        operator.getByText("Shut the door").click();
        assertThat(operator.locator("h2").first()).hasText("The door is shut");
    }

    // ---- strangers

    private int asked(HttpClient client, String token, String... headers) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(venue.url("/shows/" + show + "/desk/go")))
                .header("Cookie", Visitor.COOKIE + "=" + token + "; XSRF-TOKEN=mark")
                .POST(HttpRequest.BodyPublishers.noBody());
        for (int i = 0; i < headers.length; i += 2) {
            request.header(headers[i], headers[i + 1]);
        }
        return client.send(request.build(), BodyHandlers.discarding()).statusCode();
    }

    @Test
    void forged_stolen_and_foreign_requests_do_nothing() throws Exception {
        HttpClient client = venue.client();
        String token = venue.letIn(Role.CALLER);
        String mark = "X-XSRF-TOKEN";
        assertThat(asked(client, token, mark, "mark")).isEqualTo(204);
        assertThat(asked(client, token)).as("without the mark of a page").isEqualTo(403);
        assertThat(asked(client, token, mark, "another")).isEqualTo(403);
        assertThat(asked(client, token, mark, "mark", "Origin", "https://elsewhere.example"))
                .isEqualTo(403);
        assertThat(asked(client, token.replaceAll(".$", "_"), mark, "mark"))
                .as("a token that was guessed at")
                .isEqualTo(401);
        assertThat(asked(client, token.substring(token.indexOf('.')), mark, "mark"))
                .isEqualTo(401);
        assertThat(asked(client, "9".repeat(4000), mark, "mark")).isEqualTo(401);
        venue.takeAllAway();
        assertThat(asked(client, token, mark, "mark"))
                .as("a cookie that was stolen before it was taken away")
                .isEqualTo(401);
    }

    /** Made by the JDK's own tool, as the venue's computer people would with theirs. */
    private static Path certificate(Path folder, String names) throws Exception {
        Path file = folder.resolve("house.p12");
        Process keytool = new ProcessBuilder(List.of(
                        Path.of(System.getProperty("java.home"), "bin", "keytool")
                                .toString(),
                        "-genkeypair",
                        "-alias",
                        "house",
                        "-keyalg",
                        "RSA",
                        "-keysize",
                        "2048",
                        "-storetype",
                        "PKCS12",
                        "-keystore",
                        file.toString(),
                        "-storepass",
                        "by the river",
                        "-dname",
                        "CN=The house",
                        "-validity",
                        "30",
                        "-ext",
                        "san=" + names))
                .redirectErrorStream(true)
                .start();
        assertThat(keytool.waitFor())
                .as(new String(keytool.getInputStream().readAllBytes()))
                .isZero();
        return file;
    }

    @Test
    void the_venues_own_certificate_is_shown_and_its_name_told(@TempDir Path folder) throws Exception {
        baton.bean(VenueDoor.class).close();
        Page operator = baton.open("/venue");
        operator.getByText("The venue’s own certificate").click();
        operator.locator("[name=file]").setInputFiles(certificate(folder, "dns:baton.house.example"));
        operator.locator(".certificate [name=password]").fill("by the sea");
        operator.getByText("Put it in").click();
        assertThat(operator.locator("#notice")).containsText("another password");
        operator.locator(".certificate [name=password]").fill("by the river");
        operator.getByText("Put it in").click();
        assertThat(operator.locator(".certificate")).containsText("reached as baton.house.example");
        baton.bean(VenueDoor.class).openAt("127.0.0.1", 20_000);
        try {
            String url = baton.bean(VenueDoor.class).open().orElseThrow().url();
            assertThat(url).startsWith("https://baton.house.example:");
            SSLContext anybody = SSLContext.getInstance("TLS");
            anybody.init(null, new TrustManager[] {new Believing()}, null);
            int port = URI.create(url).getPort();
            try (SSLSocket socket = (SSLSocket) anybody.getSocketFactory().createSocket("127.0.0.1", port)) {
                socket.getOutputStream()
                        .write("GET /come-in HTTP/1.1\r\nHost: baton.house.example\r\nConnection: close\r\n\r\n"
                                .getBytes(StandardCharsets.US_ASCII));
                String said = new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
                assertThat(said).startsWith("HTTP/1.1 200");
                X509Certificate shown = (X509Certificate) socket.getSession().getPeerCertificates()[0];
                assertThat(shown.getSubjectX500Principal().getName()).isEqualTo("CN=The house");
            }
        } finally {
            baton.bean(VenueDoor.class).close();
            baton.bean(VenueDoor.class).certify(Optional.empty(), "");
        }
    }

    private static final class Believing implements X509TrustManager {
        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type) {
            // Nobody is asked for one.
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type) {
            // What it shows is looked at by the test.
        }

        @Override
        public X509Certificate[] getAcceptedIssuers() {
            return new X509Certificate[0];
        }
    }

    @Test
    void another_host_name_is_answered_by_nobody() throws Exception {
        try (Socket socket = venue.tls().createSocket("127.0.0.1", venue.port())) {
            socket.getOutputStream()
                    .write("GET /come-in HTTP/1.1\r\nHost: rebound.example\r\nConnection: close\r\n\r\n"
                            .getBytes(StandardCharsets.US_ASCII));
            String said = new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            assertThat(said).startsWith("HTTP/1.1 403");
        }
    }

    private CompletionStage<WebSocket> line(String token, String origin, CompletableFuture<String> closed)
            throws Exception {
        return venue.client()
                .newWebSocketBuilder()
                .header("Cookie", Visitor.COOKIE + "=" + token)
                .header("Origin", origin)
                .buildAsync(URI.create(venue.url("/live").replace("https", "wss")), new WebSocket.Listener() {
                    @Override
                    public CompletionStage<?> onClose(WebSocket socket, int status, String reason) {
                        closed.complete("" + status);
                        return null;
                    }

                    @Override
                    public void onError(WebSocket socket, Throwable fault) {
                        closed.complete(fault.toString());
                    }
                });
    }

    @Test
    void a_line_is_opened_by_who_is_let_in_from_a_page_of_ours_and_ends_when_he_is_taken_away() throws Exception {
        String origin = venue.url("").replaceAll("/$", "");
        CompletableFuture<String> closed = new CompletableFuture<>();
        assertThat(refused(line("", origin, closed))).as("nobody").isTrue();
        assertThat(refused(line(venue.letIn(Role.VIEWER), "https://elsewhere.example", closed)))
                .as("a page from elsewhere")
                .isTrue();
        line(venue.letIn(Role.VIEWER), origin, closed).toCompletableFuture().get(10, TimeUnit.SECONDS);
        long began = System.nanoTime();
        venue.takeAllAway();
        closed.get(10, TimeUnit.SECONDS);
        System.out.printf("a line ended %.1f ms after its device was taken away%n", (System.nanoTime() - began) / 1e6);
    }

    /** A device that was let in and opens one line after the other leaves room for all others. */
    @Test
    void a_device_gets_so_many_lines_and_no_more() throws Exception {
        String origin = venue.url("").replaceAll("/$", "");
        String token = venue.letIn(Role.VIEWER);
        for (int i = 0; i < 6; i++) {
            line(token, origin, new CompletableFuture<>()).toCompletableFuture().get(10, TimeUnit.SECONDS);
        }
        CompletableFuture<String> seventh = new CompletableFuture<>();
        line(token, origin, seventh).toCompletableFuture().get(10, TimeUnit.SECONDS);
        assertThat(seventh.get(10, TimeUnit.SECONDS)).as("service overload").isEqualTo("1013");
        CompletableFuture<String> another = new CompletableFuture<>();
        line(venue.letIn(Role.VIEWER), origin, another).toCompletableFuture().get(10, TimeUnit.SECONDS);
        assertThat(another).isNotDone();
    }

    private static boolean refused(CompletionStage<WebSocket> line) {
        try {
            line.toCompletableFuture().join();
            return false;
        } catch (CompletionException refused) {
            return true;
        }
    }
}
