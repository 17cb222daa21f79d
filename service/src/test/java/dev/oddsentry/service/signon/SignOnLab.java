package dev.oddsentry.service.signon;

import java.net.URI;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.web.util.UriComponentsBuilder;

/** Providers as operators set them up. */
final class SignOnLab {
    private SignOnLab() {}

    /** One that adds everybody as a reader, with what a test says otherwise. */
    static Map<String, Object> provider(String issuer, String secret, Map<String, Object> otherwise) {
        var body = new LinkedHashMap<String, Object>(Map.of(
                "title",
                "Skerry directory",
                "issuer",
                issuer,
                "clientId",
                "odd-sentry",
                "clientSecret",
                secret,
                "addsPeople",
                true,
                "otherRole",
                "READER",
                "addressesVerified",
                false,
                "active",
                true,
                "groups",
                List.of()));
        body.putAll(otherwise);
        return body;
    }

    static Map<String, Object> line(String group, String role, String team) {
        return team.isEmpty()
                ? Map.of("group", group, "role", role)
                : Map.of("group", group, "role", role, "team", team);
    }

    static String parameter(URI address, String name) {
        return UriComponentsBuilder.fromUri(address)
                .build(true)
                .getQueryParams()
                .getFirst(name);
    }
}
