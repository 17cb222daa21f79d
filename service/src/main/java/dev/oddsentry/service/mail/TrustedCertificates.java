package dev.oddsentry.service.mail;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.cert.CertificateFactory;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLSocketFactory;
import javax.net.ssl.TrustManagerFactory;
import org.jspecify.annotations.Nullable;

/** Sockets that trust the authorities of a file, or those that the machine trusts. */
public final class TrustedCertificates {
    private TrustedCertificates() {}

    /** @param caFile certificates in PEM; null for the machine's own */
    public static SSLSocketFactory socketFactory(@Nullable Path caFile) {
        try {
            if (caFile == null) return SSLContext.getDefault().getSocketFactory();
            var trusted = KeyStore.getInstance(KeyStore.getDefaultType());
            trusted.load(null);
            try (InputStream file = Files.newInputStream(caFile)) {
                int number = 0;
                for (var certificate : CertificateFactory.getInstance("X.509").generateCertificates(file))
                    trusted.setCertificateEntry("authority-" + number++, certificate);
            }
            var managers = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
            managers.init(trusted);
            var context = SSLContext.getInstance("TLS");
            context.init(null, managers.getTrustManagers(), null);
            return context.getSocketFactory();
        } catch (GeneralSecurityException | IOException e) {
            throw new IllegalStateException("The certificates of " + caFile + " cannot be read", e);
        }
    }
}
