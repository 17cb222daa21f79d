package dev.oddsentry.service.signon;

import dev.oddsentry.service.config.Settings;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.security.oauth2.client.registration.ClientRegistration;
import org.springframework.security.oauth2.client.registration.ClientRegistrations;
import org.springframework.security.oauth2.core.ClientAuthenticationMethod;
import org.springframework.stereotype.Component;

/** What the framework needs to know of a provider: what it says of itself, and what was set up here. Kept for an hour. */
@Component
class Registrations {
    private static final Duration KEPT = Duration.ofHours(1);

    private final IdentityProviders providers;
    private final Discovery discovery;
    private final Settings settings;
    private final Clock clock;
    private final Map<UUID, Kept> kept = new ConcurrentHashMap<>();

    Registrations(IdentityProviders providers, Discovery discovery, Settings settings, Clock clock) {
        this.providers = providers;
        this.discovery = discovery;
        this.settings = settings;
        this.clock = clock;
    }

    private record Kept(ClientRegistration registration, Instant updatedAt, Instant until) {}

    /** @throws dev.oddsentry.service.web.RefusedException if it is not kept and the provider cannot be asked */
    ClientRegistration of(IdentityProvider provider) {
        Instant now = clock.instant();
        var present = kept.get(provider.id());
        if (present != null
                && present.updatedAt().equals(provider.updatedAt())
                && present.until().isAfter(now)) return present.registration();
        var registration = make(provider);
        kept.put(provider.id(), new Kept(registration, provider.updatedAt(), now.plus(KEPT)));
        return registration;
    }

    private ClientRegistration make(IdentityProvider provider) {
        var details = provider.details();
        var secret = providers.secret(provider);
        var made = ClientRegistrations.fromOidcConfiguration(discovery.read(details.issuer()))
                .registrationId(provider.name())
                .clientId(details.clientId())
                .scope(details.scopes())
                .clientName(details.title())
                .redirectUri(returnAddress(provider.name()));
        if (secret.isPresent()) made.clientSecret(secret.get());
        else made.clientAuthenticationMethod(ClientAuthenticationMethod.NONE);
        return made.build();
    }

    /** Where the provider sends people back to; it is told beforehand. */
    String returnAddress(String provider) {
        return settings.baseUrl() + "/sign-on/" + provider + "/return";
    }

    String logInPage() {
        return settings.baseUrl() + "/login";
    }
}
