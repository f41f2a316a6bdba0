package underbaton.web.access;

import jakarta.annotation.PreDestroy;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.Inet4Address;
import java.net.InetAddress;
import java.net.NetworkInterface;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.cert.X509Certificate;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.apache.catalina.LifecycleException;
import org.apache.catalina.connector.Connector;
import org.apache.catalina.startup.Tomcat;
import org.apache.coyote.http11.AbstractHttp11Protocol;
import org.apache.tomcat.util.net.SSLHostConfig;
import org.apache.tomcat.util.net.SSLHostConfigCertificate;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.tomcat.TomcatWebServer;
import org.springframework.boot.web.server.context.WebServerInitializedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Refusal;
import underbaton.core.store.StoredForm;
import underbaton.web.kernel.OwnNames;
import underbaton.web.kernel.Settings;
import underbaton.web.kernel.SettingsMapper;
import underbaton.web.live.Live;

/**
 * The door to the venue: an address of this computer's network at which pages answer over TLS, with threads of its own, so that nobody
 * outside can take those of this computer's pages. Shut until somebody opens it here; what has come through it is known by that alone.
 */
@Component
public class VenueDoor implements OwnNames {

    private static final Logger LOG = LoggerFactory.getLogger(VenueDoor.class);
    /** In bytes. */
    public static final int LARGEST_CERTIFICATE = OwnCertificate.LARGEST;

    private static final String KEPT = "venue door";
    private static final int MOST_THREADS = 24;
    private static final int MOST_CONNECTIONS = 700;
    private static final int MOST_WAITING = 50;
    private static final int LONGEST_POST = 4 << 20;
    private static final int PATIENCE_MS = 10_000;
    private static final int PORTS_TRIED = 20;

    /**
     * Where it is to be open.
     *
     * @param address of this computer
     */
    public record Place(String address, int port, boolean open) {}

    /**
     * How it is open.
     *
     * @param hosts by which browsers may call it, the one that is told first
     * @param fingerprint of our own certificate, SHA-256; empty where the venue's is shown
     */
    public record Open(List<String> hosts, int port, String fingerprint) {

        /** As it is typed into a browser. */
        public String url() {
            return "https://" + hosts.get(0) + ":" + port + "/";
        }
    }

    /** The venue's own certificate. @param name by which the door is reached; @param until the last day on which browsers believe it */
    public record Certified(String name, LocalDate until) {}

    private final SettingsMapper settings;
    private final Settings house;
    private final OperatorPassword password;
    private final Live live;
    private final Clock clock;
    private Tomcat tomcat;
    private Connector connector;
    private volatile Open open;
    private volatile X509Certificate certificate;

    VenueDoor(SettingsMapper settings, Settings house, OperatorPassword password, Live live, Clock clock) {
        this.settings = settings;
        this.house = house;
        this.password = password;
        this.live = live;
        this.clock = clock;
    }

    /** Whether a request came through it. Nothing that the request says of itself decides that. */
    public static boolean cameThrough(HttpServletRequest request) {
        return request.isSecure();
    }

    /** Where it is open; empty while it is shut. */
    public Optional<Open> open() {
        return Optional.ofNullable(open);
    }

    /** By which it is known while it is open. */
    Optional<X509Certificate> certificate() {
        return Optional.ofNullable(certificate);
    }

    /** Where it was to be open last; empty when it never was. */
    public Optional<Place> place() {
        return settings.get(KEPT).map(k -> StoredForm.read(k, Place.class));
    }

    @Override
    public Set<String> of(HttpServletRequest request) {
        Open now = open;
        return !cameThrough(request) ? Set.of() : now == null ? Set.of("nobody") : Set.copyOf(now.hosts);
    }

    /** The addresses of this computer at which the venue could reach it, and its own, for trying. */
    public static List<String> addresses() {
        List<String> all = new ArrayList<>();
        try {
            for (NetworkInterface network : NetworkInterface.networkInterfaces().toList()) {
                for (InetAddress address : network.inetAddresses().toList()) {
                    if (network.isUp() && address instanceof Inet4Address && !address.isLoopbackAddress()) {
                        all.add(address.getHostAddress());
                    }
                }
            }
        } catch (IOException none) {
            LOG.warn("The networks of this computer cannot be listed: {}", none.toString());
        }
        all.sort(null);
        all.add("127.0.0.1");
        return all;
    }

    @EventListener
    void serves(WebServerInitializedEvent event) {
        if (!(event.getWebServer() instanceof TomcatWebServer server)) {
            return;
        }
        tomcat = server.getTomcat();
        place().filter(Place::open).ifPresent(p -> {
            try {
                listen(p.address, p.port);
            } catch (Refusal elsewhere) {
                // This computer stands in another network today: whoever runs the show opens it there.
                LOG.warn("The venue's door stays shut: {}", elsewhere.getMessage());
            }
        });
    }

    private Instant now() {
        return Instant.ofEpochMilli(clock.epochMicros() / 1000);
    }

    private Path ownFile() {
        return house.data().resolve("venue-own.p12");
    }

    private Optional<OwnCertificate> own() {
        try {
            return OwnCertificate.kept(ownFile());
        } catch (IOException | GeneralSecurityException unreadable) {
            LOG.warn("The venue's certificate cannot be read: {}", unreadable.toString());
            return Optional.empty();
        }
    }

    /** The venue's own certificate, where one was put in. */
    public Optional<Certified> certified() {
        return own().map(o -> new Certified(o.name(), o.until()));
    }

    /**
     * Puts in a certificate of the venue's, or takes it away.
     *
     * @param content of a PKCS #12 file; empty for ours again
     * @throws Refusal while the door is open, or when it is none
     */
    public synchronized void certify(Optional<byte[]> content, String password) {
        if (open != null) {
            throw new Refusal("certificate", "Shut the door first; its devices would not know it any more.");
        }
        try {
            if (content.isPresent()) {
                OwnCertificate.take(content.get(), password, ownFile(), now());
            } else {
                Files.deleteIfExists(ownFile());
            }
        } catch (IOException unwritable) {
            throw new UncheckedIOException(unwritable);
        }
    }

    /** @throws Refusal when it cannot be opened there, or nobody would be let in */
    public synchronized void openAt(String address, int port) {
        if (!password.isSet()) {
            throw new Refusal("password", "Choose a password for the operator first.");
        }
        if (!addresses().contains(address)) {
            throw new Refusal("address", address + " is no address of this computer.");
        }
        shut();
        listen(address, port);
        settings.put(KEPT, StoredForm.write(new Place(address, open.port, true)));
        live.changed("venue");
    }

    /** All that came through it are out at once; the show goes on. */
    public synchronized void close() {
        shut();
        place().ifPresent(p -> settings.put(KEPT, StoredForm.write(new Place(p.address, p.port, false))));
        live.changed("venue");
    }

    private void listen(String address, int port) {
        try {
            Optional<OwnCertificate> own = own();
            if (own.filter(o -> o.isOver(now())).isPresent()) {
                throw new Refusal(
                        "certificate",
                        "The venue's certificate ended on " + own.get().until()
                                + "; put in a new one, or take it away.");
            }
            Path file = house.data().resolve("venue-door.p12");
            DoorCertificate shown = own.isPresent() ? own.get().shown() : DoorCertificate.of(file, address, now());
            List<String> hosts = Stream.concat(own.stream().flatMap(o -> o.names().stream()), Stream.of(address))
                    .toList();
            for (int tried = 0; ; tried++) {
                Connector made = connector(address, port + tried, shown);
                try {
                    tomcat.getService().addConnector(made);
                    if (made.getLocalPort() > 0) {
                        connector = made;
                        open = new Open(hosts, made.getLocalPort(), own.isPresent() ? "" : shown.fingerprint());
                        certificate = shown.certificate();
                        LOG.info("The venue's door is open at {}", open.url());
                        return;
                    }
                } catch (IllegalArgumentException | IllegalStateException taken) {
                    LOG.debug("Port {} cannot be had", port + tried, taken);
                }
                drop(made);
                if (tried == PORTS_TRIED) {
                    throw new Refusal(
                            "port", "No port from " + port + " on is free at " + address + "; choose another.");
                }
            }
        } catch (IOException unwritable) {
            throw new UncheckedIOException(unwritable);
        } catch (GeneralSecurityException broken) {
            throw new IllegalStateException("the door's certificate cannot be used", broken);
        }
    }

    private static Connector connector(String address, int port, DoorCertificate certificate) {
        Connector made = new Connector("HTTP/1.1");
        made.setPort(port);
        made.setScheme("https");
        made.setSecure(true);
        made.setMaxPostSize(LONGEST_POST);
        made.setThrowOnFailure(true);
        AbstractHttp11Protocol<?> protocol = (AbstractHttp11Protocol<?>) made.getProtocolHandler();
        try {
            protocol.setAddress(InetAddress.getByName(address));
        } catch (IOException noAddress) {
            throw new Refusal("address", address + " is no address of this computer.");
        }
        protocol.setSSLEnabled(true);
        protocol.setMaxThreads(MOST_THREADS);
        protocol.setMinSpareThreads(2);
        // Whoever knocks without an end takes no time from the show.
        protocol.setThreadPriority(Thread.MIN_PRIORITY);
        protocol.setMaxConnections(MOST_CONNECTIONS);
        protocol.setAcceptCount(MOST_WAITING);
        protocol.setConnectionTimeout(PATIENCE_MS);
        protocol.setServer("Under Baton");
        SSLHostConfig tls = new SSLHostConfig();
        tls.setProtocols("TLSv1.2+TLSv1.3");
        SSLHostConfigCertificate key = new SSLHostConfigCertificate(tls, SSLHostConfigCertificate.Type.UNDEFINED);
        key.setCertificateKeystore(certificate.keys());
        key.setCertificateKeystorePassword(new String(DoorCertificate.NO_SECRET));
        key.setCertificateKeyAlias(DoorCertificate.ALIAS);
        tls.addCertificate(key);
        made.addSslHostConfig(tls);
        return made;
    }

    private void shut() {
        Connector was = connector;
        connector = null;
        open = null;
        certificate = null;
        if (was != null) {
            drop(was);
            live.end(who -> Guests.visitor(who).filter(v -> v.id() != 0).isPresent());
        }
    }

    private void drop(Connector was) {
        try {
            tomcat.getService().removeConnector(was);
            was.stop();
            was.destroy();
        } catch (LifecycleException neverStarted) {
            LOG.debug("The venue's door was not open", neverStarted);
        }
    }

    @PreDestroy
    synchronized void end() {
        shut();
    }
}
