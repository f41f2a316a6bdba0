package underbaton.web.access;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.Key;
import java.security.KeyStore;
import java.security.PrivateKey;
import java.security.cert.Certificate;
import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import underbaton.core.rig.Refusal;

/**
 * The venue's own certificate, which its devices trust: put in as a PKCS #12 file (RFC 7292) with its key, and kept beside the one that we
 * make. A browser believes it for its names alone, so the door is reached by the first of them.
 *
 * @param names the hosts that it is for (RFC 5280, section 4.2.1.6), without those with a wild card
 */
record OwnCertificate(DoorCertificate shown, List<String> names) {

    static final int LARGEST = 200_000;
    /** RFC 5280, section 4.2.1.6: a name of the domain name system. */
    private static final int DNS_NAME = 2;

    String name() {
        return names.get(0);
    }

    /** Until when it is believed. */
    LocalDate until() {
        return LocalDate.ofInstant(shown.certificate().getNotAfter().toInstant(), ZoneId.systemDefault());
    }

    boolean isOver(Instant now) {
        return shown.certificate().getNotAfter().toInstant().isBefore(now);
    }

    /** The one that is kept, if any. @throws IOException when it is there and cannot be read */
    static Optional<OwnCertificate> kept(Path file) throws IOException, GeneralSecurityException {
        return Files.exists(file)
                ? Optional.of(of(DoorCertificate.load(Files.readAllBytes(file), DoorCertificate.NO_SECRET)))
                : Optional.empty();
    }

    /**
     * Puts one in.
     *
     * @param content of a PKCS #12 file
     * @throws Refusal when it cannot be read with that password, has no key, no name, or is over
     */
    static OwnCertificate take(byte[] content, String password, Path file, Instant now) throws IOException {
        try {
            KeyStore theirs = DoorCertificate.load(content, password.toCharArray());
            OwnCertificate own = of(renamed(theirs, password.toCharArray()));
            if (own.isOver(now)) {
                throw new Refusal("file", "That certificate ended on " + own.until() + "; ask for a new one.");
            }
            DoorCertificate.keep(file, own.shown.keys());
            return own;
        } catch (GeneralSecurityException broken) {
            throw unreadable();
        }
    }

    private static Refusal unreadable() {
        return new Refusal(
                "file",
                "That is no certificate with its key, or it has another password. Put in a PKCS #12 file (.p12 or .pfx).");
    }

    private static KeyStore renamed(KeyStore theirs, char[] password) throws GeneralSecurityException, IOException {
        for (String alias : Collections.list(theirs.aliases())) {
            Key key = theirs.getKey(alias, password);
            Certificate[] chain = theirs.getCertificateChain(alias);
            if (key instanceof PrivateKey && chain != null && chain[0] instanceof X509Certificate) {
                KeyStore ours = DoorCertificate.empty();
                ours.setKeyEntry(DoorCertificate.ALIAS, key, DoorCertificate.NO_SECRET, chain);
                return ours;
            }
        }
        throw unreadable();
    }

    private static OwnCertificate of(KeyStore keys) throws GeneralSecurityException {
        X509Certificate certificate = (X509Certificate) keys.getCertificate(DoorCertificate.ALIAS);
        List<String> names = names(certificate);
        if (names.isEmpty()) {
            throw new Refusal(
                    "file", "That certificate names no host by its whole name, so no browser would believe it here.");
        }
        return new OwnCertificate(new DoorCertificate(keys, certificate), names);
    }

    private static List<String> names(X509Certificate certificate) throws CertificateException {
        return certificate.getSubjectAlternativeNames() == null
                ? List.of()
                : certificate.getSubjectAlternativeNames().stream()
                        .filter(n -> n.get(0).equals(DNS_NAME))
                        .map(n -> n.get(1).toString())
                        .filter(n -> !n.contains("*"))
                        .toList();
    }
}
