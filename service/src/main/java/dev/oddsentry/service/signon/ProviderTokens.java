package dev.oddsentry.service.signon;

import java.time.Clock;
import java.time.Duration;
import java.util.Collection;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.oauth2.client.authentication.OAuth2LoginAuthenticationToken;
import org.springframework.security.oauth2.client.endpoint.OAuth2RefreshTokenGrantRequest;
import org.springframework.security.oauth2.client.endpoint.RestClientAuthorizationCodeTokenResponseClient;
import org.springframework.security.oauth2.client.endpoint.RestClientRefreshTokenTokenResponseClient;
import org.springframework.security.oauth2.client.oidc.authentication.OidcAuthorizationCodeAuthenticationProvider;
import org.springframework.security.oauth2.client.oidc.authentication.OidcIdTokenDecoderFactory;
import org.springframework.security.oauth2.client.oidc.authentication.OidcIdTokenValidator;
import org.springframework.security.oauth2.client.oidc.userinfo.OidcUserService;
import org.springframework.security.oauth2.client.registration.ClientRegistration;
import org.springframework.security.oauth2.client.userinfo.DefaultOAuth2UserService;
import org.springframework.security.oauth2.core.DelegatingOAuth2TokenValidator;
import org.springframework.security.oauth2.core.OAuth2AccessToken;
import org.springframework.security.oauth2.core.OAuth2RefreshToken;
import org.springframework.security.oauth2.core.converter.ClaimTypeConverter;
import org.springframework.security.oauth2.core.endpoint.OAuth2AccessTokenResponse;
import org.springframework.security.oauth2.core.endpoint.OAuth2AuthorizationExchange;
import org.springframework.security.oauth2.core.endpoint.OAuth2AuthorizationRequest;
import org.springframework.security.oauth2.core.endpoint.OAuth2AuthorizationResponse;
import org.springframework.security.oauth2.jose.jws.SignatureAlgorithm;
import org.springframework.security.oauth2.jwt.JwtDecoder;
import org.springframework.security.oauth2.jwt.JwtTimestampValidator;
import org.springframework.security.oauth2.jwt.NimbusJwtDecoder;
import org.springframework.stereotype.Component;

/**
 * Gets from a provider who came back, and reads it: signature by a key of the provider, issuer, audience, nonce and time of the ID token (OpenID
 * Connect Core 1.0, 3.1.3.7), and what the user info endpoint adds.
 */
@Component
class ProviderTokens {
    private static final Duration SKEW = Duration.ofMinutes(1);

    private final ProviderLine line;
    private final Clock clock;
    private final OidcAuthorizationCodeAuthenticationProvider login;
    private final RestClientRefreshTokenTokenResponseClient refresh = new RestClientRefreshTokenTokenResponseClient();

    ProviderTokens(ProviderLine line, Clock clock) {
        this.line = line;
        this.clock = clock;
        var codes = new RestClientAuthorizationCodeTokenResponseClient();
        codes.setRestClient(line.tokens());
        refresh.setRestClient(line.tokens());
        var userInfo = new DefaultOAuth2UserService();
        userInfo.setRestOperations(line.template());
        var users = new OidcUserService();
        users.setOauth2UserService(userInfo);
        this.login = new OidcAuthorizationCodeAuthenticationProvider(codes, users);
        login.setJwtDecoderFactory(this::decoder);
    }

    /** @throws AuthenticationException if the provider refuses the code, or what it answers does not prove itself */
    OAuth2LoginAuthenticationToken fetch(
            ClientRegistration of, OAuth2AuthorizationRequest request, OAuth2AuthorizationResponse response) {
        var asked = new OAuth2LoginAuthenticationToken(of, new OAuth2AuthorizationExchange(request, response));
        return (OAuth2LoginAuthenticationToken) Objects.requireNonNull(login.authenticate(asked));
    }

    /** @throws org.springframework.security.oauth2.core.OAuth2AuthorizationException if the provider refuses it */
    OAuth2AccessTokenResponse refresh(ClientRegistration of, String refreshToken) {
        var now = clock.instant();
        // The framework wants the one before, and does not send it.
        var before = new OAuth2AccessToken(OAuth2AccessToken.TokenType.BEARER, "spent", now.minusSeconds(1), now);
        return refresh.getTokenResponse(
                new OAuth2RefreshTokenGrantRequest(of, before, new OAuth2RefreshToken(refreshToken, now)));
    }

    /** Made for each log-in, which reads the keys: a new key of the provider counts at once, one that it withdrew no longer. */
    private JwtDecoder decoder(ClientRegistration of) {
        var decoder = NimbusJwtDecoder.withJwkSetUri(
                        Objects.requireNonNull(of.getProviderDetails().getJwkSetUri()))
                .jwsAlgorithms(all -> all.addAll(algorithms(of)))
                .restOperations(line.keys())
                .build();
        var time = new JwtTimestampValidator(SKEW);
        time.setClock(clock);
        var content = new OidcIdTokenValidator(of);
        content.setClockSkew(SKEW);
        content.setClock(clock);
        decoder.setJwtValidator(new DelegatingOAuth2TokenValidator<>(time, content));
        decoder.setClaimSetConverter(
                new ClaimTypeConverter(OidcIdTokenDecoderFactory.createDefaultClaimTypeConverters()));
        return decoder;
    }

    /** Those that the provider says it signs with, but none with a secret that both know. */
    private static Set<SignatureAlgorithm> algorithms(ClientRegistration of) {
        var said = of.getProviderDetails().getConfigurationMetadata().get("id_token_signing_alg_values_supported");
        if (!(said instanceof Collection<?> names)) return Set.of(SignatureAlgorithm.RS256);
        var known = names.stream()
                .map(name -> SignatureAlgorithm.from(String.valueOf(name)))
                .filter(Objects::nonNull)
                .collect(Collectors.toSet());
        return known.isEmpty() ? Set.of(SignatureAlgorithm.RS256) : known;
    }
}
