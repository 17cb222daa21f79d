package dev.oddsentry.service.signon;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.JOSEObjectType;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.JWSHeader;
import com.nimbusds.jose.JWSSigner;
import com.nimbusds.jose.crypto.MACSigner;
import com.nimbusds.jose.crypto.RSASSASigner;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jose.jwk.RSAKey;
import com.nimbusds.jose.jwk.gen.RSAKeyGenerator;
import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.PlainJWT;
import com.nimbusds.jwt.SignedJWT;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Date;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executors;
import tools.jackson.databind.json.JsonMapper;

/** A provider that says what a test wants, true or not. */
final class LyingProvider implements AutoCloseable {
    static final String CLIENT = "odd-sentry";
    static final String SECRET = "a-secret-of-more-than-thirty-two-letters";
    private static final JsonMapper JSON = new JsonMapper();

    /** How the ID token is signed. */
    enum Signature {
        ITS_OWN,
        OF_ANOTHER_KEY,
        WITH_THE_SECRET,
        NONE
    }

    private final HttpServer server;
    private final RSAKey key;
    private final RSAKey other;
    final List<String> asked = new ArrayList<>();

    Signature signature = Signature.ITS_OWN;
    Map<String, Object> discovery = new LinkedHashMap<>();
    Map<String, Object> claims = new LinkedHashMap<>();
    Map<String, Object> userInfo = new LinkedHashMap<>();
    int tokenStatus = 200;
    String tokenError = "";
    String refreshToken = "";

    LyingProvider() throws IOException, JOSEException {
        key = new RSAKeyGenerator(2048).keyID("one").generate();
        other = new RSAKeyGenerator(2048).keyID("one").generate();
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.createContext("/.well-known/openid-configuration", exchange -> answer(exchange, 200, discovery));
        server.createContext("/keys", exchange -> answer(exchange, 200, new JWKSet(key.toPublicJWK()).toJSONObject()));
        server.createContext("/token", this::token);
        server.createContext("/user", exchange -> answer(exchange, 200, userInfo));
        server.start();
        discovery.putAll(Map.of(
                "issuer",
                issuer(),
                "authorization_endpoint",
                issuer() + "/authorize",
                "token_endpoint",
                issuer() + "/token",
                "jwks_uri",
                issuer() + "/keys",
                "subject_types_supported",
                List.of("public"),
                "response_types_supported",
                List.of("code"),
                "id_token_signing_alg_values_supported",
                List.of("RS256", "HS256", "none")));
    }

    String issuer() {
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    /** What an honest one would say of somebody. */
    void says(String subject, String nonce, Map<String, Object> more) {
        var now = Instant.now();
        claims = new LinkedHashMap<>(Map.of(
                "iss",
                issuer(),
                "aud",
                CLIENT,
                "sub",
                subject,
                "nonce",
                nonce,
                "iat",
                Date.from(now),
                "exp",
                Date.from(now.plusSeconds(300))));
        claims.putAll(more);
    }

    private void token(HttpExchange exchange) throws IOException {
        asked.add(new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
        if (!tokenError.isEmpty()) {
            answer(exchange, 400, Map.of("error", tokenError));
            return;
        }
        var said = new LinkedHashMap<String, Object>(
                Map.of("access_token", "access", "token_type", "Bearer", "expires_in", 300));
        said.put("id_token", idToken());
        if (!refreshToken.isEmpty()) said.put("refresh_token", refreshToken);
        answer(exchange, tokenStatus, said);
    }

    private String idToken() {
        var builder = new JWTClaimsSet.Builder();
        claims.forEach(builder::claim);
        var content = builder.build();
        try {
            return switch (signature) {
                case ITS_OWN -> signed(JWSAlgorithm.RS256, new RSASSASigner(key), content);
                case OF_ANOTHER_KEY -> signed(JWSAlgorithm.RS256, new RSASSASigner(other), content);
                case WITH_THE_SECRET -> signed(JWSAlgorithm.HS256, new MACSigner(SECRET), content);
                case NONE -> new PlainJWT(content).serialize();
            };
        } catch (JOSEException e) {
            throw new IllegalStateException(e);
        }
    }

    private static String signed(JWSAlgorithm algorithm, JWSSigner signer, JWTClaimsSet content) throws JOSEException {
        var jwt = new SignedJWT(
                new JWSHeader.Builder(algorithm)
                        .keyID("one")
                        .type(JOSEObjectType.JWT)
                        .build(),
                content);
        jwt.sign(signer);
        return jwt.serialize();
    }

    private static void answer(HttpExchange exchange, int status, Map<String, Object> body) throws IOException {
        byte[] bytes = JSON.writeValueAsBytes(body);
        exchange.getResponseHeaders().set("Content-Type", "application/json");
        exchange.sendResponseHeaders(status, bytes.length);
        exchange.getResponseBody().write(bytes);
        exchange.close();
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
