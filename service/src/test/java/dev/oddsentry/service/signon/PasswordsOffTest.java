package dev.oddsentry.service.signon;

import static dev.oddsentry.service.signon.SignOnLab.parameter;
import static dev.oddsentry.service.signon.SignOnLab.provider;
import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.HttpApi.Answer;
import dev.oddsentry.service.RunningService;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** People log in through an identity provider alone, but for one operator for emergencies. On records of its own. */
class PasswordsOffTest {
    private final RunningService service = RunningService.withItsOwnTime();
    private LyingProvider liar;

    @BeforeEach
    void start() throws Exception {
        liar = new LyingProvider();
    }

    @AfterEach
    void end() {
        liar.close();
        service.close();
    }

    private void saveProvider() {
        service.api()
                .put(
                        "/api/identity-providers/skerry",
                        provider(liar.issuer(), LyingProvider.SECRET, Map.of("knownBy", "LOG_IN_NAME")));
    }

    private Answer policy(boolean passwords, String emergency) {
        return service.api()
                .send(
                        "PUT",
                        "/api/access-policy",
                        "{\"teamsDecide\": false, \"passwords\": " + passwords + ", \"emergencyOperator\": \""
                                + emergency + "\"}",
                        Map.of("Content-Type", "application/json"));
    }

    private Answer token(String login, String password) {
        return HttpApi.stranger(service.baseUrl())
                .postAnswer("/api/tokens", Map.of("login", login, "password", password));
    }

    @Test
    void needsAProviderAndAnOperatorWhoCanStillLogIn() {
        HttpApi.newUser(service, "ines", "LEAD", List.of(), "ines@skerryline.example");
        assertThat(policy(false, "operator").body().path("detail").asString())
                .isEqualTo("Add an identity provider first. Nobody could log in without one.");
        saveProvider();
        assertThat(policy(false, "").body().path("detail").asString()).startsWith("Name an operator");
        assertThat(policy(false, "ines").body().path("detail").asString())
                .isEqualTo("\"ines\" is not an operator who has a password.");
        assertThat(policy(false, "operator").status()).isEqualTo(200);
        assertThat(HttpApi.stranger(service.baseUrl())
                        .get("/api/log-in-options")
                        .toString())
                .isEqualTo(
                        "{\"passwords\":false,\"providers\":[{\"name\":\"skerry\",\"title\":\"Skerry directory\"}]}");
        var refused = service.api().send("DELETE", "/api/identity-providers/skerry", "", Map.of());
        assertThat(refused.body().path("detail").asString()).contains("Allow passwords first");
    }

    @Test
    void noPasswordLogsInButThatOfTheEmergencyOperator() {
        var ines = HttpApi.newUser(service, "ines", "OPERATOR", List.of(), "ines@skerryline.example");
        saveProvider();
        policy(false, "operator");
        assertThat(token("operator", RunningService.OPERATOR_PASSWORD).status()).isEqualTo(201);
        var right = token("ines", "long-enough-1");
        var wrong = token("ines", "wrong");
        assertThat(right.status()).isEqualTo(401);
        assertThat(right.text()).as("does not say that it was right").isEqualTo(wrong.text());
        assertThat(ines.send("GET", "/api/session", null, Map.of()).status())
                .as("a log-in from before goes on")
                .isEqualTo(200);
        var change = ines.send(
                "PUT",
                "/api/session/password",
                "{\"present\": \"long-enough-1\", \"password\": \"another-one-2\"}",
                Map.of("Content-Type", "application/json"));
        assertThat(change.body().path("detail").asString()).startsWith("Passwords are off");
    }

    @Test
    void nobodyIsSentALinkForAPassword() {
        saveProvider();
        policy(false, "operator");
        var marit =
                Map.of("login", "marit", "name", "Marit", "email", "marit-off@skerryline.example", "role", "READER");
        service.api().post("/api/people", marit);
        assertThat(service.api()
                        .postAnswer("/api/people/marit/invitation", Map.of())
                        .body()
                        .path("detail")
                        .asString())
                .startsWith("Passwords are off");
        HttpApi.stranger(service.baseUrl())
                .send(
                        "POST",
                        "/api/password-links",
                        "{\"login\": \"marit\"}",
                        Map.of("Content-Type", "application/json"));
        HttpApi.stranger(service.baseUrl())
                .send(
                        "POST",
                        "/api/password-links",
                        "{\"login\": \"operator\"}",
                        Map.of("Content-Type", "application/json"));
        RunningService.await(
                "the operator's link, which is asked for last",
                () -> service.countRecords("select count(*) from password_link") == 1);
        assertThat(
                        service.countRecords(
                                "select count(*) from password_link l join person p on p.id = l.person_id where p.login = 'marit'"))
                .isZero();
    }

    @Test
    void theEmergencyOperatorIsNeitherReplacedNorDisabledNorDemoted() {
        saveProvider();
        var ines = HttpApi.newUser(service, "ines", "OPERATOR", List.of(), "ines@skerryline.example");
        policy(false, "operator");
        var demotion = Map.of("name", "O", "email", "o@skerryline.example", "role", "READER", "teams", List.of());
        assertThat(ines.postAnswer("/api/people/operator/disable", Map.of())
                        .body()
                        .path("detail")
                        .asString())
                .contains("this is the emergency operator");
        assertThat(ines.send(
                                "PUT",
                                "/api/people/operator",
                                new JsonMapper().writeValueAsString(demotion),
                                Map.of("Content-Type", "application/json"))
                        .body()
                        .path("detail")
                        .asString())
                .contains("this is the emergency operator");
        assertThat(logIn("operator").path("login").asString())
                .as("somebody chose that name at the provider")
                .isEqualTo("operator-2");
        assertThat(logIn("ines").path("login").asString())
                .as("others are known by it")
                .isEqualTo("ines");
    }

    @Test
    void aNamedEmergencyOperatorIsNotReplacedBeforePasswordsAreOffEither() {
        saveProvider();
        policy(true, "operator");
        assertThat(logIn("operator").path("login").asString()).isEqualTo("operator-2");
    }

    @Test
    void oneWhoIsNoLongerAnOperatorDoesNotStandInTheWayOfAnotherSetting() {
        var ines = HttpApi.newUser(service, "ines", "OPERATOR", List.of(), "ines@skerryline.example");
        policy(true, "ines");
        service.api()
                .put(
                        "/api/people/ines",
                        Map.of("name", "I", "email", "ines@skerryline.example", "role", "READER", "teams", List.of()));
        assertThat(ines.get("/api/session").path("role").asString()).isEqualTo("READER");
        assertThat(policy(true, "ines").status()).isEqualTo(200);
        saveProvider();
        assertThat(policy(false, "ines").status()).isEqualTo(422);
    }

    private JsonNode logIn(String as) {
        var browser = new Browser(service.baseUrl());
        var away = browser.sentTo("/sign-on/skerry");
        liar.says("subject of " + as, parameter(away, "nonce"), Map.of("preferred_username", as));
        browser.sentTo("/sign-on/skerry/return?code=c&state=" + parameter(away, "state"));
        return browser.api("GET", "/api/session", Map.of()).body();
    }

    @Test
    void aSessionEndsSoonerWhereTheProviderCannotBeAsked() {
        saveProvider();
        liar.refreshToken = "";
        var browser = new Browser(service.baseUrl());
        var away = browser.sentTo("/sign-on/skerry");
        liar.says("kari", parameter(away, "nonce"), Map.of("preferred_username", "kari"));
        browser.sentTo("/sign-on/skerry/return?code=c&state=" + parameter(away, "state"));
        service.pass(Duration.ofHours(11));
        assertThat(browser.api("GET", "/api/session", Map.of()).status()).isEqualTo(200);
        service.pass(Duration.ofMinutes(70));
        assertThat(browser.api("GET", "/api/session", Map.of()).status()).isEqualTo(401);
    }

    @Test
    void aProviderThatIsDownWithdrawsNothing() {
        saveProvider();
        liar.refreshToken = "refresh-1";
        var browser = new Browser(service.baseUrl());
        var away = browser.sentTo("/sign-on/skerry");
        liar.says("kari", parameter(away, "nonce"), Map.of("preferred_username", "kari"));
        browser.sentTo("/sign-on/skerry/return?code=c&state=" + parameter(away, "state"));
        beforeLong();
        liar.tokenError = "temporarily_unavailable";
        service.bean(Confirmations.class).confirmDue();
        assertThat(browser.api("GET", "/api/session", Map.of()).status()).isEqualTo(200);
        liar.tokenError = "";
        liar.refreshToken = "refresh-2";
        service.bean(Confirmations.class).confirmDue();
        assertThat(liar.asked.getLast()).contains("refresh_token=refresh-1");
        beforeLong();
        liar.tokenError = "invalid_grant";
        service.bean(Confirmations.class).confirmDue();
        assertThat(liar.asked.getLast()).as("each works once").contains("refresh_token=refresh-2");
        assertThat(browser.api("GET", "/api/session", Map.of()).status()).isEqualTo(401);
    }

    /** The time of all would have the service ask by itself, too. */
    private void beforeLong() {
        service.changeRecords("update provider_identity set confirmed_at = confirmed_at - interval '16 minutes'");
    }
}
