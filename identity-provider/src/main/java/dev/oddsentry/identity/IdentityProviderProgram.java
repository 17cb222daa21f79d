package dev.oddsentry.identity;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;

/**
 * Starts the stand-in for the demo: {@code PORT SERVICE-ADDRESS SECRET-FILE USERS-FILE}. The file of users has a line for each: log-in name, name,
 * address, password and groups, with semicolons between; groups have commas between.
 */
public final class IdentityProviderProgram {
    private IdentityProviderProgram() {}

    public static void main(String[] arguments) throws IOException {
        String service = arguments[1];
        var client = new IdentityProviderStandIn.Client(
                "odd-sentry",
                Files.readString(Path.of(arguments[2])).strip(),
                List.of(service + "/sign-on/skerry/return"),
                service + "/login");
        var users = Files.readAllLines(Path.of(arguments[3])).stream()
                .filter(line -> !line.isBlank())
                .map(IdentityProviderProgram::user)
                .toList();
        var provider = IdentityProviderStandIn.start(Integer.parseInt(arguments[0]), client, users);
        System.out.println("Identity provider at " + provider.issuer());
    }

    private static KnownUser user(String line) {
        String[] parts = line.split(";", -1);
        if (parts.length != 5)
            throw new IllegalArgumentException(
                    "A user is log-in name;name;address;password;groups, and not: " + parts[0]);
        return new KnownUser(parts[0], parts[1], parts[2], parts[3], Set.of(parts[4].split(",")));
    }
}
