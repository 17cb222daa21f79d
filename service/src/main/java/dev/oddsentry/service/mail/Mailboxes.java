package dev.oddsentry.service.mail;

import dev.oddsentry.core.definition.MailAddress;
import jakarta.mail.internet.AddressException;
import jakarta.mail.internet.InternetAddress;
import java.io.UnsupportedEncodingException;
import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;

/** Addresses as they are written, as those of a message. */
final class Mailboxes {
    private Mailboxes() {}

    /** Each address once. */
    static List<InternetAddress> of(Collection<String> written) {
        var found = new LinkedHashMap<String, InternetAddress>();
        written.stream()
                .map(Mailboxes::of)
                .forEach(address -> found.putIfAbsent(address.getAddress().toLowerCase(Locale.ROOT), address));
        return List.copyOf(found.values());
    }

    private static InternetAddress of(String written) {
        try {
            var address = new InternetAddress(MailAddress.bare(written), true);
            String name = MailAddress.name(written);
            if (!name.isEmpty()) address.setPersonal(name, StandardCharsets.UTF_8.name());
            return address;
        } catch (AddressException | UnsupportedEncodingException e) {
            throw new IllegalStateException("\"" + written + "\" is not a mail address", e);
        }
    }
}
