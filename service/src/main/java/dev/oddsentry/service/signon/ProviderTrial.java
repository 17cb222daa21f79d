package dev.oddsentry.service.signon;

import com.nimbusds.jose.jwk.JWKSet;
import dev.oddsentry.service.web.RefusedException;
import java.text.ParseException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.web.client.RestClientException;

/** Looks whether an identity provider answers, before people meet it: what it says of itself, and its keys. Nobody is logged in. */
@Component
public class ProviderTrial {
    private final Discovery discovery;
    private final ProviderLine line;
    private final Registrations registrations;

    ProviderTrial(Discovery discovery, ProviderLine line, Registrations registrations) {
        this.discovery = discovery;
        this.line = line;
        this.registrations = registrations;
    }

    /**
     * @param keys how many it signs with
     * @param logsOut whether people are logged out there, too
     * @param warnings what may go wrong, in sentences
     */
    public record ProviderFindings(String authorizationEndpoint, int keys, boolean logsOut, List<String> warnings) {}

    /** @throws RefusedException with what is wrong, if it does not answer as it should */
    public ProviderFindings of(IdentityProvider provider) {
        var said = discovery.read(provider.details().issuer());
        var warnings = new ArrayList<String>();
        if (!lists(said.get("code_challenge_methods_supported"), "S256"))
            warnings.add("It does not say that it checks PKCE (S256). Log-ins work, with less protection.");
        for (String scope : provider.details().scopes())
            if (said.get("scopes_supported") instanceof Collection<?> scopes && !scopes.contains(scope))
                warnings.add("It does not list the scope \"" + scope + "\".");
        if (!provider.hasSecret() && !lists(said.get("token_endpoint_auth_methods_supported"), "none"))
            warnings.add("It does not say that it takes clients without a secret.");
        if (!lists(said.get("grant_types_supported"), "refresh_token"))
            warnings.add("It does not say that it gives refresh tokens. Sessions end after 12 hours then.");
        int keys = keys(String.valueOf(said.get("jwks_uri")));
        return new ProviderFindings(
                String.valueOf(said.get("authorization_endpoint")),
                keys,
                said.get("end_session_endpoint") != null,
                warnings);
    }

    private static boolean lists(@Nullable Object values, String value) {
        return values instanceof Collection<?> several && several.contains(value);
    }

    private int keys(String address) {
        try {
            var keys = line.plain().get().uri(address).retrieve().body(String.class);
            int count = JWKSet.parse(keys).getKeys().size();
            if (count > 0) return count;
        } catch (RestClientException | ParseException | IllegalArgumentException failed) {
            // falls through: the advice is the same
        }
        throw RefusedException.invalid("There are no keys at " + address + ". Without them, no log-in can be checked.");
    }

    /** What the provider must know as the redirect URI of this service. */
    public String returnAddress(String provider) {
        return registrations.returnAddress(provider);
    }
}
