package dev.oddsentry.service.signon;

import dev.oddsentry.service.web.RefusedException;
import java.net.InetAddress;
import java.net.URI;
import java.net.URISyntaxException;
import java.net.UnknownHostException;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.core.ParameterizedTypeReference;
import org.springframework.stereotype.Component;
import org.springframework.web.client.HttpStatusCodeException;
import org.springframework.web.client.RestClientException;

/** What a provider says of itself below its issuer (OpenID Connect Discovery 1.0). */
@Component
class Discovery {
    private static final String WELL_KNOWN = "/.well-known/openid-configuration";
    private static final ParameterizedTypeReference<Map<String, Object>> OBJECT = new ParameterizedTypeReference<>() {};

    private final ProviderLine line;

    Discovery(ProviderLine line) {
        this.line = line;
    }

    /** @throws RefusedException with what is wrong, if the issuer is no address that may be asked or nothing sensible answers there */
    Map<String, Object> read(String issuer) {
        requireSafe(issuer);
        String address = (issuer.endsWith("/") ? issuer.substring(0, issuer.length() - 1) : issuer) + WELL_KNOWN;
        var said = ask(address);
        if (said == null || !issuer.equals(said.get("issuer")))
            throw RefusedException.invalid("The issuer at " + address + " is \""
                    + (said == null ? "" : said.get("issuer")) + "\", not \"" + issuer + "\". They must be equal.");
        for (String part : new String[] {"authorization_endpoint", "token_endpoint", "jwks_uri"}) {
            if (!(said.get(part) instanceof String there))
                throw RefusedException.invalid(address + " does not say its " + part + ".");
            requireSafe(there);
        }
        return said;
    }

    private @Nullable Map<String, Object> ask(String address) {
        try {
            return line.plain().get().uri(URI.create(address)).retrieve().body(OBJECT);
        } catch (HttpStatusCodeException refused) {
            throw RefusedException.invalid(
                    address + " answers " + refused.getStatusCode().value()
                            + ". An issuer of OpenID Connect says there where everything is.");
        } catch (RestClientException | IllegalArgumentException failed) {
            throw RefusedException.invalid("Nothing that can be read answers at " + address + ". Check the issuer.");
        }
    }

    /** Who is logged in, and as what, is said over an encrypted line, or on this machine. */
    private static void requireSafe(String address) {
        try {
            var uri = new URI(address);
            boolean https = "https".equals(uri.getScheme());
            if (uri.getHost() != null
                    && uri.getUserInfo() == null
                    && uri.getFragment() == null
                    && (https || ("http".equals(uri.getScheme()) && isLoopback(uri.getHost())))) return;
        } catch (URISyntaxException notOne) {
            // falls through: the advice is the same
        }
        throw RefusedException.invalid(
                "\"" + address + "\" is not an https address. Example: https://login.skerryline.example");
    }

    private static boolean isLoopback(String host) {
        if (host.equals("localhost")) return true;
        if (!host.matches("127\\.[0-9.]+|\\[[0-9a-f:]+]")) return false;
        try {
            return InetAddress.getByName(host).isLoopbackAddress();
        } catch (UnknownHostException notOne) {
            return false;
        }
    }
}
