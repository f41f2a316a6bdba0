package underbaton.web.access;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.Cookie;
import java.net.http.HttpClient;
import java.security.KeyStore;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLSocketFactory;
import javax.net.ssl.TrustManagerFactory;
import underbaton.web.UnderBaton;

/** The venue's door, open at this computer's own address, and devices that come through it. */
public final class VenueAtHand implements AutoCloseable {

    public static final String PASSWORD = "lantern ferry ninth bell";

    private final VenueDoor door;
    private final Guests guests;
    private final WaitingDevices waiting;

    public VenueAtHand(UnderBaton baton) {
        door = baton.bean(VenueDoor.class);
        guests = baton.bean(Guests.class);
        waiting = baton.bean(WaitingDevices.class);
        baton.bean(OperatorPassword.class).set(PASSWORD);
        door.openAt("127.0.0.1", 20_000 + (int) (ProcessHandle.current().pid() % 9_000));
    }

    public String url(String path) {
        String url = door.open().orElseThrow().url();
        return url.substring(0, url.length() - 1) + path;
    }

    /** @return what it shows us from now on */
    public String letIn(Role role) {
        return guests.letIn(role.word(), role, "127.0.0.1", Optional.of(Duration.ofHours(1)));
    }

    /** A browser stands at the door. @return the number that it shows */
    public String asks(Page browser, String name) {
        browser.navigate(url("/"));
        browser.getByLabel("Whose device is this?").fill(name);
        browser.getByText("Ask to come in").click();
        return browser.locator(".number").textContent();
    }

    /** Whoever stands at the door comes in. */
    public void letsIn(Role role) {
        waiting.all().forEach(d -> waiting.letIn(d.number(), d.code(), role, Optional.empty()));
    }

    /** A browser that is let in already. */
    public void comesIn(Page browser, Role role, String path) {
        browser.context()
                .addCookies(List.of(new Cookie(Visitor.COOKIE, letIn(role))
                        .setUrl(url("/"))
                        .setSecure(true)
                        .setHttpOnly(true)));
        browser.navigate(url(path));
    }

    Role roleOf(String token) {
        return guests.of(token).orElseThrow().role();
    }

    /** One that trusts the door's certificate, as who has compared its fingerprint does. */
    public HttpClient client() throws Exception {
        return HttpClient.newBuilder().sslContext(context()).build();
    }

    public SSLSocketFactory tls() throws Exception {
        return context().getSocketFactory();
    }

    public int port() {
        return door.open().orElseThrow().port();
    }

    public void takeAllAway() {
        guests.all().forEach(g -> guests.takeAway(g.id()));
    }

    private SSLContext context() throws Exception {
        KeyStore trusted = KeyStore.getInstance(KeyStore.getDefaultType());
        trusted.load(null, null);
        trusted.setCertificateEntry("door", certificate());
        TrustManagerFactory factory = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        factory.init(trusted);
        SSLContext tls = SSLContext.getInstance("TLS");
        tls.init(null, factory.getTrustManagers(), null);
        return tls;
    }

    private X509Certificate certificate() {
        return door.certificate().orElseThrow();
    }

    @Override
    public void close() {
        takeAllAway();
        door.close();
    }
}
