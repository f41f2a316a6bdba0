package underbaton.web.access;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.math.BigInteger;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.KeyStore;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.security.cert.Certificate;
import java.security.cert.X509Certificate;
import java.security.spec.ECGenParameterSpec;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Collection;
import java.util.Date;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import org.bouncycastle.asn1.x500.X500Name;
import org.bouncycastle.asn1.x509.BasicConstraints;
import org.bouncycastle.asn1.x509.ExtendedKeyUsage;
import org.bouncycastle.asn1.x509.Extension;
import org.bouncycastle.asn1.x509.GeneralName;
import org.bouncycastle.asn1.x509.GeneralNames;
import org.bouncycastle.asn1.x509.KeyPurposeId;
import org.bouncycastle.cert.jcajce.JcaX509CertificateConverter;
import org.bouncycastle.cert.jcajce.JcaX509v3CertificateBuilder;
import org.bouncycastle.operator.OperatorCreationException;
import org.bouncycastle.operator.jcajce.JcaContentSignerBuilder;

/**
 * The certificate by which the venue's devices know us (X.509, RFC 5280): made by ourselves at the first opening, for one address, and
 * kept in a file that nobody else may read. Its fingerprint is told beside the address, so that it can be compared.
 *
 * @param keys with one key, under {@link #ALIAS}
 */
record DoorCertificate(KeyStore keys, X509Certificate certificate) {

    static final String ALIAS = "door";
    /** Whoever can read the file has the key; a word in our source would keep nobody out. */
    static final char[] NO_SECRET = "door".toCharArray();

    private static final String KIND = "PKCS12";
    /** What browsers take at most. */
    private static final int DAYS = 397;

    /** The one that is kept, or a new one where that is for another address or about to end. */
    static DoorCertificate of(Path file, String address, Instant now) throws IOException, GeneralSecurityException {
        if (Files.exists(file)) {
            KeyStore keys = load(Files.readAllBytes(file), NO_SECRET);
            DoorCertificate kept = new DoorCertificate(keys, (X509Certificate) keys.getCertificate(ALIAS));
            if (kept.isFor(address, now.plus(7, ChronoUnit.DAYS))) {
                return kept;
            }
        }
        return made(file, address, now);
    }

    private boolean isFor(String address, Instant when) throws GeneralSecurityException {
        Collection<List<?>> names = certificate.getSubjectAlternativeNames();
        return names != null
                && names.stream().anyMatch(n -> n.get(1).equals(address))
                && certificate.getNotAfter().toInstant().isAfter(when);
    }

    private static DoorCertificate made(Path file, String address, Instant now)
            throws IOException, GeneralSecurityException {
        KeyPairGenerator generator = KeyPairGenerator.getInstance("EC");
        generator.initialize(new ECGenParameterSpec("secp256r1"));
        KeyPair pair = generator.generateKeyPair();
        X500Name us = new X500Name("CN=Under Baton at " + address);
        X509Certificate certificate;
        try {
            JcaX509v3CertificateBuilder builder = new JcaX509v3CertificateBuilder(
                    us,
                    new BigInteger(120, new SecureRandom()).add(BigInteger.ONE),
                    Date.from(now.minus(1, ChronoUnit.DAYS)),
                    Date.from(now.plus(DAYS - 1, ChronoUnit.DAYS)),
                    us,
                    pair.getPublic());
            builder.addExtension(Extension.basicConstraints, true, new BasicConstraints(false));
            builder.addExtension(
                    Extension.extendedKeyUsage, false, new ExtendedKeyUsage(KeyPurposeId.id_kp_serverAuth));
            builder.addExtension(
                    Extension.subjectAlternativeName,
                    false,
                    new GeneralNames(new GeneralName(GeneralName.iPAddress, address)));
            certificate = new JcaX509CertificateConverter()
                    .getCertificate(
                            builder.build(new JcaContentSignerBuilder("SHA256withECDSA").build(pair.getPrivate())));
        } catch (OperatorCreationException impossible) {
            throw new GeneralSecurityException(impossible);
        }
        KeyStore keys = empty();
        keys.setKeyEntry(ALIAS, pair.getPrivate(), NO_SECRET, new Certificate[] {certificate});
        keep(file, keys);
        return new DoorCertificate(keys, certificate);
    }

    static KeyStore empty() throws IOException, GeneralSecurityException {
        KeyStore keys = KeyStore.getInstance(KIND);
        keys.load(null, NO_SECRET);
        return keys;
    }

    /** @throws GeneralSecurityException when it is no store of keys, or has another password */
    static KeyStore load(byte[] content, char[] password) throws GeneralSecurityException {
        KeyStore keys = KeyStore.getInstance(KIND);
        try {
            keys.load(new ByteArrayInputStream(content), password);
        } catch (IOException unreadable) {
            throw new GeneralSecurityException(unreadable);
        }
        return keys;
    }

    static void keep(Path file, KeyStore keys) throws IOException, GeneralSecurityException {
        Files.createDirectories(file.toAbsolutePath().getParent());
        Path half = file.resolveSibling(file.getFileName() + ".half");
        Files.deleteIfExists(half);
        Files.createFile(half, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
        try (OutputStream out = Files.newOutputStream(half)) {
            keys.store(out, NO_SECRET);
        }
        Files.move(half, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }

    /** SHA-256 of it, as browsers show it: {@code 3F:A0:…}. */
    String fingerprint() {
        try {
            byte[] digest = MessageDigest.getInstance("SHA-256").digest(certificate.getEncoded());
            return HexFormat.ofDelimiter(":").formatHex(digest).toUpperCase(Locale.ROOT);
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
