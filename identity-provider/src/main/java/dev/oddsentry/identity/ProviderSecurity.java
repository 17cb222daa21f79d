package dev.oddsentry.identity;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jose.jwk.RSAKey;
import com.nimbusds.jose.jwk.gen.RSAKeyGenerator;
import com.nimbusds.jose.jwk.source.ImmutableJWKSet;
import com.nimbusds.jose.jwk.source.JWKSource;
import com.nimbusds.jose.proc.SecurityContext;
import java.time.Duration;
import java.util.Objects;
import java.util.UUID;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.MediaType;
import org.springframework.security.config.Customizer;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configuration.EnableWebSecurity;
import org.springframework.security.config.annotation.web.configuration.OAuth2AuthorizationServerConfiguration;
import org.springframework.security.config.annotation.web.configurers.oauth2.server.authorization.OAuth2AuthorizationServerConfigurer;
import org.springframework.security.core.Authentication;
import org.springframework.security.oauth2.core.AuthorizationGrantType;
import org.springframework.security.oauth2.core.ClientAuthenticationMethod;
import org.springframework.security.oauth2.core.OAuth2AuthenticationException;
import org.springframework.security.oauth2.core.OAuth2Error;
import org.springframework.security.oauth2.core.OAuth2ErrorCodes;
import org.springframework.security.oauth2.core.oidc.OidcScopes;
import org.springframework.security.oauth2.core.oidc.endpoint.OidcParameterNames;
import org.springframework.security.oauth2.jwt.JwtDecoder;
import org.springframework.security.oauth2.server.authorization.client.InMemoryRegisteredClientRepository;
import org.springframework.security.oauth2.server.authorization.client.RegisteredClient;
import org.springframework.security.oauth2.server.authorization.client.RegisteredClientRepository;
import org.springframework.security.oauth2.server.authorization.settings.AuthorizationServerSettings;
import org.springframework.security.oauth2.server.authorization.settings.ClientSettings;
import org.springframework.security.oauth2.server.authorization.settings.TokenSettings;
import org.springframework.security.oauth2.server.authorization.token.JwtEncodingContext;
import org.springframework.security.oauth2.server.authorization.token.OAuth2TokenCustomizer;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.LoginUrlAuthenticationEntryPoint;
import org.springframework.security.web.util.matcher.MediaTypeRequestMatcher;

/** The provider itself: one client, users with a log-in page, tokens signed with a key made at the start. */
@Configuration
@EnableWebSecurity
class ProviderSecurity {
    private static final int KEY_BITS = 2048;

    @Bean
    SecurityFilterChain security(HttpSecurity http) throws Exception {
        return http.with(
                        new OAuth2AuthorizationServerConfigurer(),
                        server -> server.oidc(oidc ->
                                oidc.providerConfigurationEndpoint(endpoint -> endpoint.providerConfigurationCustomizer(
                                        says -> says.scope(OidcScopes.PROFILE).scope(OidcScopes.EMAIL)))))
                .authorizeHttpRequests(requests -> requests.anyRequest().authenticated())
                .exceptionHandling(handling -> handling.defaultAuthenticationEntryPointFor(
                        new LoginUrlAuthenticationEntryPoint("/login"),
                        new MediaTypeRequestMatcher(MediaType.TEXT_HTML)))
                .formLogin(Customizer.withDefaults())
                .build();
    }

    @Bean
    RegisteredClientRepository clients(IdentityProviderStandIn.Client client) {
        return new InMemoryRegisteredClientRepository(RegisteredClient.withId(
                        UUID.randomUUID().toString())
                .clientId(client.id())
                .clientSecret("{noop}" + client.secret())
                .clientAuthenticationMethod(ClientAuthenticationMethod.CLIENT_SECRET_BASIC)
                .authorizationGrantType(AuthorizationGrantType.AUTHORIZATION_CODE)
                .authorizationGrantType(AuthorizationGrantType.REFRESH_TOKEN)
                .redirectUris(addresses -> addresses.addAll(client.returnAddresses()))
                .postLogoutRedirectUri(client.logOutAddress())
                .scope(OidcScopes.OPENID)
                .scope(OidcScopes.PROFILE)
                .scope(OidcScopes.EMAIL)
                .clientSettings(ClientSettings.builder().requireProofKey(true).build())
                .tokenSettings(TokenSettings.builder()
                        .refreshTokenTimeToLive(Duration.ofDays(30))
                        .build())
                .build());
    }

    /** What is said of somebody, in the ID token; of one who has gone, nothing. */
    @Bean
    OAuth2TokenCustomizer<JwtEncodingContext> claims(KnownUsers users) {
        return token -> {
            Authentication who = Objects.requireNonNull(token.getPrincipal());
            var user = users.find(who.getName())
                    .orElseThrow(() -> new OAuth2AuthenticationException(
                            new OAuth2Error(OAuth2ErrorCodes.INVALID_GRANT, "The user has gone.", null)));
            if (OidcParameterNames.ID_TOKEN.equals(token.getTokenType().getValue()))
                token.getClaims()
                        .claim("preferred_username", user.login())
                        .claim("name", user.name())
                        .claim("email", user.address())
                        .claim("email_verified", true)
                        .claim("groups", user.groups());
        };
    }

    @Bean
    JWKSource<SecurityContext> keys() throws JOSEException {
        RSAKey key = new RSAKeyGenerator(KEY_BITS)
                .keyID(UUID.randomUUID().toString())
                .generate();
        return new ImmutableJWKSet<>(new JWKSet(key));
    }

    @Bean
    JwtDecoder decoder(JWKSource<SecurityContext> keys) {
        return OAuth2AuthorizationServerConfiguration.jwtDecoder(keys);
    }

    /** The issuer is the address that it is asked at. */
    @Bean
    AuthorizationServerSettings settings() {
        return AuthorizationServerSettings.builder().build();
    }
}
