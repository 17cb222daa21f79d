package dev.oddsentry.service.signon;

import static dev.oddsentry.service.signon.SignOnLab.line;
import static dev.oddsentry.service.signon.SignOnLab.parameter;
import static dev.oddsentry.service.signon.SignOnLab.provider;
import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.people.Operators;
import dev.oddsentry.service.recipients.Directory;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Date;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.json.JsonMapper;

/** With a provider that lies, breaks or is not who it says. Nobody is logged in by it, and nobody becomes somebody else. */
class UntrustedProviderTest {
    private final RunningService service = RunningService.get();
    private final String name = "l" + UUID.randomUUID().toString().substring(0, 8);
    private final String subject = "subject-" + name;
    private LyingProvider liar;
    private Browser browser;

    @BeforeEach
    void start() throws Exception {
        liar = new LyingProvider();
        browser = new Browser(service.baseUrl());
        save(Map.of());
    }

    @AfterEach
    void end() {
        service.api().delete("/api/identity-providers/" + name);
        liar.close();
    }

    private void save(Map<String, Object> otherwise) {
        service.api().put("/api/identity-providers/" + name, provider(liar.issuer(), LyingProvider.SECRET, otherwise));
    }

    /** Goes there and comes back with what an honest provider would say, but for {@code more}. */
    private String comeBack(Map<String, Object> more) {
        return comeBack(more, _ -> {});
    }

    private String comeBack(Map<String, Object> more, Consumer<LyingProvider> lie) {
        var away = browser.sentTo("/sign-on/" + name);
        assertThat(parameter(away, "code_challenge_method")).isEqualTo("S256");
        liar.says(subject, parameter(away, "nonce"), more);
        lie.accept(liar);
        return browser.sentTo("/sign-on/" + name + "/return?code=c&state=" + parameter(away, "state"))
                .toString()
                .replace(service.baseUrl(), "");
    }

    private int session() {
        return browser.api("GET", "/api/session", Map.of()).status();
    }

    static Stream<Arguments> lies() {
        var past = Date.from(Instant.now().minusSeconds(600));
        return Stream.of(
                lie("another issuer", it -> it.claims.put("iss", "https://login.other.example")),
                lie("another audience", it -> it.claims.put("aud", "another-client")),
                lie("several audiences and no party", it -> it.claims.put("aud", List.of("odd-sentry", "other"))),
                lie("for another party", it -> it.claims.put("azp", "another-client")),
                lie("an expired token", it -> it.claims.put("exp", past)),
                lie("a token without an end", it -> it.claims.remove("exp")),
                lie(
                        "from the future",
                        it -> it.claims.put("iat", Date.from(Instant.now().plusSeconds(900)))),
                lie("another log-in's nonce", it -> it.claims.put("nonce", "of-another-time")),
                lie("no nonce", it -> it.claims.remove("nonce")),
                lie("no subject", it -> it.claims.remove("sub")),
                lie("signed by another", it -> it.signature = LyingProvider.Signature.OF_ANOTHER_KEY),
                lie("signed with the secret", it -> it.signature = LyingProvider.Signature.WITH_THE_SECRET),
                lie("not signed", it -> it.signature = LyingProvider.Signature.NONE));
    }

    private static Arguments lie(String what, Consumer<LyingProvider> lie) {
        return Arguments.argumentSet(what, lie);
    }

    @ParameterizedTest
    @MethodSource("lies")
    void logsNobodyIn(Consumer<LyingProvider> lie) {
        assertThat(comeBack(Map.of("preferred_username", subject), lie)).isEqualTo("/login?refused=untrusted");
        assertThat(session()).isEqualTo(401);
        assertThat(service.api().get("/api/people?disabled=true").toString()).doesNotContain(subject);
    }

    /** Otherwise the lies above would prove nothing. */
    @Test
    void logsInWhenNothingIsALie() {
        assertThat(comeBack(Map.of("preferred_username", subject))).isEqualTo("/");
        assertThat(session()).isEqualTo(200);
        assertThat(liar.asked.getFirst()).contains("code_verifier=", "grant_type=authorization_code");
    }

    @Test
    void userInfoOfSomebodyElseIsRefused() {
        liar.discovery.put("userinfo_endpoint", liar.issuer() + "/user");
        save(Map.of("title", "Skerry"));
        liar.userInfo.put("sub", "somebody-else");
        assertThat(comeBack(Map.of())).isEqualTo("/login?refused=untrusted");
    }

    @Test
    void saysWhatAProviderRefusesOrThatItDoesNotAnswer() {
        assertThat(comeBack(Map.of(), it -> it.tokenError = "invalid_client")).isEqualTo("/login?refused=by_provider");
        liar.tokenError = "";
        var away = browser.sentTo("/sign-on/" + name);
        assertThat(browser.sentTo("/sign-on/" + name + "/return?error=access_denied&state=" + parameter(away, "state"))
                        .toString())
                .endsWith("/login?refused=by_provider");
        away = browser.sentTo("/sign-on/" + name);
        assertThat(browser.sentTo("/sign-on/" + name + "/return?code=c&iss=https://other.example&state="
                                + parameter(away, "state"))
                        .toString())
                .endsWith("/login?refused=untrusted");
        away = browser.sentTo("/sign-on/" + name);
        String state = parameter(away, "state");
        liar.close();
        assertThat(browser.sentTo("/sign-on/" + name + "/return?code=c&state=" + state)
                        .toString())
                .endsWith("/login?refused=unreachable");
        assertThat(browser.sentTo("/sign-on/none").toString()).endsWith("/login?refused=off");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "https://evil.example/",
                "//evil.example",
                "/\\evil.example",
                "\\\\evil.example",
                "javascript:alert(1)",
                "/%0d%0aSet-Cookie:x=1"
            })
    void returnsToNoOtherSite(String target) {
        var away =
                browser.sentTo("/sign-on/" + name + "?returnTo=" + URLEncoder.encode(target, StandardCharsets.UTF_8));
        liar.says(subject, parameter(away, "nonce"), Map.of());
        var at = browser.sentTo("/sign-on/" + name + "/return?code=c&state=" + parameter(away, "state"));
        assertThat(at.toString()).startsWith(service.baseUrl() + "/");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '→', textBlock = """
            /findings?q=a|b{c}&x=[1] → /findings?q=a%7Cb%7Bc%7D&x=%5B1%5D
            /queries/å b?q="ø" → /queries/%C3%A5%20b?q=%22%C3%B8%22
            /rules?q=50%25#row → /rules?q=50%25#row
            /rules?q=50%zz → /
            """)
    void returnsToAPageWhateverItsAddressHolds(String target, String returned) {
        var away =
                browser.sentTo("/sign-on/" + name + "?returnTo=" + URLEncoder.encode(target, StandardCharsets.UTF_8));
        liar.says(subject, parameter(away, "nonce"), Map.of());
        var at = browser.sentTo("/sign-on/" + name + "/return?code=c&state=" + parameter(away, "state"));
        assertThat(at.toString()).isEqualTo(service.baseUrl() + returned);
        assertThat(session()).isEqualTo(200);
    }

    /** An address that is not verified does not count, and a blank one is no recipient. */
    @Test
    void somebodyWithoutAnAddressIsMailedNothing() {
        String login = "no-address-" + name;
        comeBack(Map.of("preferred_username", login));
        assertThat(browser.api("GET", "/api/session", Map.of())
                        .body()
                        .path("email")
                        .asString())
                .isEmpty();
        assertThat(service.bean(Directory.class).written(List.of("person: " + login)))
                .isEmpty();
        assertThat(service.api()
                        .postAnswer("/api/people/" + login + "/invitation", Map.of())
                        .text())
                .contains("has no address");
        var change = browser.api("PUT", "/api/session/password", Map.of("present", "x", "password", "long-enough-1"));
        assertThat(change.text()).contains("You have no password here");
        service.api()
                .put("/api/people/" + login, Map.of("name", "N", "email", "", "role", "OPERATOR", "teams", List.of()));
        try {
            assertThat(service.bean(Operators.class).addresses()).isNotEmpty().doesNotContain("");
        } finally {
            service.api().post("/api/people/" + login + "/disable", Map.of());
        }
    }

    @Test
    void nobodyIsTakenForAUserUnlessTheOperatorSaysSo() {
        String login = "vidar-" + name;
        HttpApi.newUser(service, login, "LEAD", List.of(), login + "@skerryline.example");
        var claims = Map.<String, Object>of(
                "preferred_username", login, "email", login + "@skerryline.example", "email_verified", true);
        comeBack(claims);
        assertThat(browser.api("GET", "/api/session", Map.of())
                        .body()
                        .path("login")
                        .asString())
                .as("somebody else")
                .isEqualTo(login + "-2");
    }

    @Test
    void anAddressThatIsNotVerifiedMakesNobodyAnybody() {
        save(Map.of("knownBy", "ADDRESS"));
        String login = "randi-" + name;
        HttpApi.newUser(service, login, "LEAD", List.of(), login + "@skerryline.example");
        comeBack(Map.of(
                "email", login + "@skerryline.example", "email_verified", false, "preferred_username", "x" + name));
        var person = browser.api("GET", "/api/session", Map.of()).body();
        assertThat(person.path("login").asString()).isEqualTo("x" + name);
        assertThat(person.path("email").asString()).isEmpty();
    }

    @Test
    void recognisesAVerifiedAddressOnceAndThenTheSubject() {
        save(Map.of("knownBy", "ADDRESS"));
        String login = "sigrid-" + name;
        HttpApi.newUser(service, login, "LEAD", List.of(), login + "@skerryline.example");
        comeBack(Map.of("email", login.toUpperCase() + "@skerryline.example", "email_verified", true));
        var person = browser.api("GET", "/api/session", Map.of()).body();
        assertThat(person.path("login").asString()).isEqualTo(login);
        assertThat(person.path("role").asString()).as("without groups it stays").isEqualTo("LEAD");
        comeBack(Map.of("email", "new-" + login + "@skerryline.example", "email_verified", true));
        person = browser.api("GET", "/api/session", Map.of()).body();
        assertThat(person.path("login").asString()).isEqualTo(login);
        assertThat(person.path("email").asString()).isEqualTo("new-" + login + "@skerryline.example");
    }

    @Test
    void whoIsDisabledHereStaysOut() {
        comeBack(Map.of("preferred_username", "d" + name));
        service.api().post("/api/people/d" + name + "/disable", Map.of());
        assertThat(comeBack(Map.of("preferred_username", "d" + name))).isEqualTo("/login?refused=disabled");
    }

    @Test
    void addsNobodyWhereTheOperatorDoesNotWantIt() {
        save(Map.of("addsPeople", false));
        assertThat(comeBack(Map.of("preferred_username", subject))).isEqualTo("/login?refused=not_known");
    }

    @Test
    void takesGroupsAsAListAsATextAndNotAtAll() {
        var lines = List.of(line("bridge", "AUDITOR", ""), line("fuel", "LEAD", ""));
        save(Map.of("groups", lines, "groupClaim", "departments"));
        comeBack(Map.of("departments", "bridge"));
        assertThat(role()).isEqualTo("AUDITOR");
        comeBack(Map.of("departments", List.of("fuel", "bridge")));
        assertThat(role()).as("the first line that fits").isEqualTo("AUDITOR");
        comeBack(Map.of("departments", Map.of("fuel", true)));
        assertThat(role()).as("the role of others").isEqualTo("READER");
    }

    private String role() {
        return browser.api("GET", "/api/session", Map.of()).body().path("role").asString();
    }

    @Test
    void whatItSaysOfSomebodyIsCutAndCleaned() {
        comeBack(Map.of(
                "preferred_username",
                "Måkehamn\\Åse.Ø@skerryline.example",
                "name",
                "Åse\u0000\nØ " + "😀".repeat(300)));
        var person = browser.api("GET", "/api/session", Map.of()).body();
        assertThat(person.path("login").asString()).startsWith("ase.o");
        assertThat(person.path("name").asString()).startsWith("Åse  Ø 😀").hasSizeLessThanOrEqualTo(200);
    }

    @Test
    void issuerMustAnswerAndBeWhatItSays() {
        assertThat(refusal(Map.of("issuer", liar.issuer() + "/"))).contains("They must be equal");
        assertThat(refusal(Map.of("issuer", "http://login.skerryline.example"))).contains("is not an https address");
        assertThat(refusal(Map.of("issuer", "https://user:pw@login.skerryline.example")))
                .contains("is not an https address");
        assertThat(refusal(Map.of("issuer", "http://127.0.0.1:1"))).contains("Nothing that can be read answers");
        assertThat(refusal(Map.of("issuer", service.baseUrl()))).contains("answers 4");
        liar.discovery.put("token_endpoint", "http://login.other.example/token");
        assertThat(refusal(Map.of("title", "Other", "issuer", liar.issuer()), "new-" + name))
                .contains("is not an https address");
    }

    @Test
    void theSecretGoesToNoOtherIssuer() throws Exception {
        try (var other = new LyingProvider()) {
            var body = provider(other.issuer(), "", Map.of());
            body.remove("clientSecret");
            assertThat(refused(name, body)).contains("Give the client secret again");
        }
    }

    /** Its subjects may be other people, and a code of the one before is not for it. */
    @Test
    void anotherIssuerKnowsNobodyOfTheOneBefore() throws Exception {
        comeBack(Map.of("preferred_username", "first" + name));
        var away = browser.sentTo("/sign-on/" + name);
        try (var other = new LyingProvider()) {
            service.api()
                    .put("/api/identity-providers/" + name, provider(other.issuer(), LyingProvider.SECRET, Map.of()));
            assertThat(browser.sentTo("/sign-on/" + name + "/return?code=c&state=" + parameter(away, "state"))
                            .toString())
                    .endsWith("/login?refused=expired");
            assertThat(other.asked).isEmpty();
            var there = browser.sentTo("/sign-on/" + name);
            assertThat(there.toString()).startsWith(other.issuer());
            other.says(subject, parameter(there, "nonce"), Map.of("preferred_username", "second" + name));
            browser.sentTo("/sign-on/" + name + "/return?code=c&state=" + parameter(there, "state"));
            assertThat(browser.api("GET", "/api/session", Map.of())
                            .body()
                            .path("login")
                            .asString())
                    .isEqualTo("second" + name);
        }
    }

    private String refusal(Map<String, Object> otherwise) {
        return refusal(otherwise, name);
    }

    private String refusal(Map<String, Object> otherwise, String of) {
        return refused(of, provider(liar.issuer(), LyingProvider.SECRET, otherwise));
    }

    private String refused(String of, Map<String, Object> body) {
        var answer = service.api()
                .send(
                        "PUT",
                        "/api/identity-providers/" + of,
                        new JsonMapper().writeValueAsString(body),
                        Map.of("Content-Type", "application/json"));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(Set.of(answer.text())).noneMatch(text -> text.contains(LyingProvider.SECRET));
        return answer.body().path("detail").asString();
    }
}
