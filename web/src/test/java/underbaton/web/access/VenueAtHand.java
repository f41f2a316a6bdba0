package underbaton.web.access;

import java.net.http.HttpClient;
import java.security.KeyStore;
import java.security.cert.X509Certificate;
import java.time.Duration;
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

    public VenueAtHand(UnderBaton baton) {
        door = baton.bean(VenueDoor.class);
        guests = baton.bean(Guests.class);
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
