package dev.oddsentry.service.web;

import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.time.Duration;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.util.unit.DataSize;
import org.springframework.validation.annotation.Validated;

/**
 * What one client may take of the service, under {@code oddsentry.web.*}.
 *
 * @param maxBody of a request with a log-in
 * @param maxBodyOfStranger of a request without one
 * @param bodyWithin time for a whole body to arrive
 * @param maxBodiesHeld all bodies over 64 kB that are held at one time
 * @param maxConnectionsPerAddress open at one time; a reverse proxy counts as one address, so give it a higher number
 */
@ConfigurationProperties("oddsentry.web")
@Validated
public record WebLimits(
        @NotNull @DefaultValue("2MB") DataSize maxBody,
        @NotNull @DefaultValue("16KB") DataSize maxBodyOfStranger,
        @NotNull @DefaultValue("15s") Duration bodyWithin,
        @NotNull @DefaultValue("8MB") DataSize maxBodiesHeld,
        @DefaultValue("1000") @Min(1) int maxConnectionsPerAddress) {}
