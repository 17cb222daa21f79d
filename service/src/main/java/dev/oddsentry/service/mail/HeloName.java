package dev.oddsentry.service.mail;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** What this service calls itself to a mail server (RFC 5321, 4.1.3 and 4.1.4): the machine's full name, or its address in brackets where it has none. */
final class HeloName {
    private HeloName() {}

    /** @param given by the operator; null for the usual one */
    static String of(@Nullable String given) {
        if (given != null) return given;
        try {
            var machine = InetAddress.getLocalHost();
            String name = machine.getCanonicalHostName().toLowerCase(Locale.ROOT);
            return isFull(name) ? name : literal(machine);
        } catch (UnknownHostException unnamed) {
            return literal(InetAddress.getLoopbackAddress());
        }
    }

    /** A name without a dot is refused by strict servers, and an address is no name. */
    private static boolean isFull(String name) {
        return name.matches(
                "[a-z0-9]([a-z0-9-]*[a-z0-9])?(\\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)*\\.[a-z][a-z0-9-]*[a-z0-9]\\.?");
    }

    private static String literal(InetAddress address) {
        String digits = address.getHostAddress();
        int scope = digits.indexOf('%');
        if (scope >= 0) digits = digits.substring(0, scope);
        return digits.contains(":") ? "[IPv6:" + digits + "]" : "[" + digits + "]";
    }
}
