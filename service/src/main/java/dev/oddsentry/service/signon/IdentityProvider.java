package dev.oddsentry.service.signon;

import java.time.Instant;
import java.util.UUID;

/**
 * An identity provider as it is kept.
 *
 * @param name what it is called in addresses
 * @param hasSecret whether this service proves itself there with a secret
 */
public record IdentityProvider(UUID id, String name, ProviderDetails details, boolean hasSecret, Instant updatedAt) {}
