package dev.oddsentry.service.mail;

import java.util.Optional;
import java.util.UUID;
import java.util.regex.Pattern;

/** The sender in a message's envelope, one for each message: {@code bounces+ID@skerryline.example}. What comes back names it. */
public final class ReturnPath {
    private static final Pattern ID =
            Pattern.compile("\\+([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})@");

    private ReturnPath() {}

    static String of(String mailbox, UUID message) {
        int at = mailbox.lastIndexOf('@');
        return mailbox.substring(0, at) + "+" + message + mailbox.substring(at);
    }

    /** @param address perhaps with a name */
    public static Optional<UUID> message(String address) {
        var found = ID.matcher(address);
        return found.find() ? Optional.of(UUID.fromString(found.group(1))) : Optional.empty();
    }
}
