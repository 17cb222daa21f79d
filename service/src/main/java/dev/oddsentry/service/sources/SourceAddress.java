package dev.oddsentry.service.sources;

import dev.oddsentry.service.web.RefusedException;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.postgresql.Driver;

/**
 * The JDBC address of a source, as its driver reads it. It names servers and a database. Of the driver's parameters only those are allowed that concern the
 * line to the server: others switch off the limits that every query runs under, or hold secrets.
 */
public final class SourceAddress {
    static final String PREFIX = "jdbc:postgresql:";

    private static final Set<String> PLACE = Set.of("PGHOST", "PGPORT", "PGDBNAME");
    private static final Set<String> SECRET = Set.of("password", "user", "sslpassword", "sslPassword");
    private static final Set<String> ALLOWED = new TreeSet<>(Set.of(
            "ssl",
            "sslmode",
            "sslrootcert",
            "sslcert",
            "sslkey",
            "sslNegotiation",
            "channelBinding",
            "requireAuth",
            "gssEncMode",
            "connectTimeout",
            "tcpKeepAlive",
            "targetServerType",
            "loadBalanceHosts",
            "hostRecheckSeconds",
            "currentSchema",
            "ApplicationName"));

    private SourceAddress() {}

    /** @throws RefusedException if the driver cannot read it, or it holds a parameter that is not allowed */
    static Properties parse(String jdbcUrl) {
        var parts = read(jdbcUrl);
        if (parts == null) throw RefusedException.invalid("jdbcUrl: " + problemOfForm(jdbcUrl));
        for (String name : new TreeSet<>(parts.stringPropertyNames())) {
            if (PLACE.contains(name) || ALLOWED.contains(name)) continue;
            throw RefusedException.invalid("jdbcUrl: " + problemOf(name));
        }
        return parts;
    }

    private static @Nullable Properties read(String jdbcUrl) {
        if (!jdbcUrl.startsWith(PREFIX)
                || jdbcUrl.chars().anyMatch(Character::isISOControl)
                || authority(jdbcUrl).contains("@")) return null;
        return Driver.parseURL(jdbcUrl, null);
    }

    private static String authority(String jdbcUrl) {
        String rest = jdbcUrl.substring(PREFIX.length());
        if (!rest.startsWith("//")) return "";
        int end = rest.substring(2).indexOf('/');
        return end < 0 ? rest.substring(2) : rest.substring(2, end + 2);
    }

    private static String problemOfForm(String jdbcUrl) {
        if (jdbcUrl.startsWith(PREFIX) && authority(jdbcUrl).contains("@"))
            return "the address must not contain a user or a password; give them in their own fields.";
        return "this is not an address of a PostgreSQL database. Example: jdbc:postgresql://db.skerryline.example:5432/ferry";
    }

    private static String problemOf(String parameter) {
        if (SECRET.contains(parameter))
            return "the address must not contain \"" + parameter
                    + "\"; give the user and the password in their own fields.";
        return "the parameter \"" + printable(parameter) + "\" is not allowed. Allowed are "
                + String.join(", ", ALLOWED) + ".";
    }

    private static String printable(String name) {
        return name.length() <= 60 ? name : name.substring(0, 60) + "…";
    }

    /** The password that an address from before holds. */
    static Optional<String> passwordIn(String jdbcUrl) {
        return Optional.ofNullable(Driver.parseURL(jdbcUrl, null)).map(parts -> parts.getProperty("password"));
    }

    static String withoutPassword(String jdbcUrl) {
        return jdbcUrl.replaceAll("(?i)([?&])(ssl)?password=[^&]*&?", "$1").replaceAll("[?&]$", "");
    }

    /** The address as it may be shown: what was stored before passwords were refused may still hold one. */
    public static String withoutSecrets(String jdbcUrl) {
        return jdbcUrl.replaceAll("(?i)([?&](?:ssl)?password=)[^&]*", "$1…").replaceAll("//[^/@]*@", "//…@");
    }
}
