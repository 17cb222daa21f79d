package dev.oddsentry.service.bounces;

import dev.oddsentry.service.mail.ReturnPaths;
import dev.oddsentry.service.mail.ServerWords;
import jakarta.mail.Address;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.internet.InternetHeaders;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.eclipse.angus.mail.dsn.DeliveryStatus;
import org.eclipse.angus.mail.dsn.MultipartReport;
import org.jspecify.annotations.Nullable;

/**
 * A delivery report (RFC 3464) as far as it concerns us. What it quotes of the message, and whom it calls the recipient, anybody could have written; only the
 * address that it came to says whose message it is.
 *
 * @param token of the envelope that it answers; null if it answers none
 * @param failures recipients who do not get it, for good
 */
record DeliveryReport(ReturnPaths.@Nullable Token token, List<Failure> failures) {
    private static final List<String> SENT_BACK_TO = List.of("Delivered-To", "X-Original-To", "Envelope-To");

    /**
     * @param words the mail system's own
     * @param ofTheAddress whether the address is to blame, and not this one message
     */
    record Failure(String address, String words, boolean ofTheAddress) {}

    /** @return empty where the mail is no delivery report */
    static Optional<DeliveryReport> of(MimeMessage mail) throws MessagingException, IOException {
        if (!mail.isMimeType("multipart/report")) return Optional.empty();
        var report = new MultipartReport(mail.getDataHandler().getDataSource());
        if (!(report.getReport() instanceof DeliveryStatus status)) return Optional.empty();
        var failures = new ArrayList<Failure>();
        for (int i = 0; i < status.getRecipientDSNCount(); i++) {
            var about = status.getRecipientDSN(i);
            if (field(about, "Action").toLowerCase(Locale.ROOT).startsWith("failed")) failures.add(failure(about));
        }
        return Optional.of(new DeliveryReport(token(mail), List.copyOf(failures)));
    }

    private static Failure failure(InternetHeaders about) {
        String original = typed(field(about, "Original-Recipient"));
        String address = original.isEmpty() ? typed(field(about, "Final-Recipient")) : original;
        String diagnostic = typed(field(about, "Diagnostic-Code"));
        String status = field(about, "Status");
        String words = diagnostic.isEmpty() ? "status " + status : diagnostic;
        return new Failure(address.replaceAll("[<>]", ""), ServerWords.line(words), ServerWords.isOfTheAddress(status));
    }

    private static String field(InternetHeaders about, String name) {
        return Objects.requireNonNullElse(about.getHeader(name, null), "").strip();
    }

    /** {@code rfc822; per.aune@skerryline.example} without its type. */
    private static String typed(String value) {
        return value.substring(value.indexOf(';') + 1).strip();
    }

    private static ReturnPaths.@Nullable Token token(MimeMessage mail) throws MessagingException {
        var addresses = new ArrayList<String>();
        for (String header : SENT_BACK_TO) {
            String[] values = mail.getHeader(header);
            if (values != null) addresses.addAll(List.of(values));
        }
        Address[] to = mail.getRecipients(Message.RecipientType.TO);
        if (to != null) Stream.of(to).map(Address::toString).forEach(addresses::add);
        return addresses.stream()
                .flatMap(address -> ReturnPaths.read(address).stream())
                .findFirst()
                .orElse(null);
    }
}
