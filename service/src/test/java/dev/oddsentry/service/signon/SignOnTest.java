package dev.oddsentry.service.signon;

import static dev.oddsentry.service.signon.SignOnLab.line;
import static dev.oddsentry.service.signon.SignOnLab.parameter;
import static dev.oddsentry.service.signon.SignOnLab.provider;
import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.identity.IdentityProviderStandIn;
import dev.oddsentry.identity.KnownUser;
import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RunningService;
import java.net.URI;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** With a whole identity provider on loopback, from the log-in page to the log-out there. */
class SignOnTest {
    private static final String SECRET = "the-secret-of-this-client";

    private final RunningService service = RunningService.get();
    private final String name = "p" + UUID.randomUUID().toString().substring(0, 8);
    private final String login = "kari-" + name;
    private final String team = "Fuel desk " + name;
    private final KnownUser kari =
            new KnownUser(login, "Kari Nes", login + "@skerryline.example", "kari-knows-2", Set.of("fuel", "staff"));
    private IdentityProviderStandIn directory;

    @BeforeEach
    void start() {
        var client = new IdentityProviderStandIn.Client(
                "odd-sentry",
                SECRET,
                List.of(Browser.CONFIGURED + "/sign-on/" + name + "/return"),
                Browser.CONFIGURED + "/login");
        directory = IdentityProviderStandIn.start(0, client, List.of(kari));
        service.api()
                .put("/api/teams/" + team.replace(" ", "%20"), Map.of("addresses", List.of("fuel@skerryline.example")));
    }

    @AfterEach
    void end() {
        service.api().delete("/api/identity-providers/" + name);
        directory.close();
    }

    private void save(Map<String, Object> otherwise) {
        service.api().put("/api/identity-providers/" + name, provider(directory.issuer(), SECRET, otherwise));
    }

    private Browser.Stay logIn(Browser browser) {
        return browser.open("/sign-on/" + name + "?returnTo=/rules/late-sailings", login, kari.password());
    }

    @Test
    void addsAPersonWithTheRoleAndTheTeamsOfTheirGroups() {
        save(Map.of(
                "groups",
                List.of(line("operators", "OPERATOR", ""), line("fuel", "LEAD", team), line("staff", "READER", ""))));
        var browser = new Browser(service.baseUrl());
        var stay = logIn(browser);
        assertThat(stay.last().getPath()).isEqualTo("/rules/late-sailings");
        var person = browser.api("GET", "/api/session", Map.of()).body();
        assertThat(person.path("login").asString()).isEqualTo(login);
        assertThat(person.path("name").asString()).isEqualTo("Kari Nes");
        assertThat(person.path("email").asString()).isEqualTo(login + "@skerryline.example");
        assertThat(person.path("role").asString()).isEqualTo("LEAD");
        assertThat(person.path("teams").toString()).isEqualTo("[\"" + team + "\"]");
        var user = user();
        assertThat(user.path("invited").asBoolean()).isFalse();
        assertThat(user.path("providers").toString()).isEqualTo("[\"Skerry directory\"]");
    }

    private JsonNode user() {
        for (var each : service.api().get("/api/people"))
            if (each.path("login").asString().equals(login)) return each;
        throw new AssertionError("no user " + login);
    }

    @Test
    void followsTheGroupsAtEachLogInAndLeavesOtherTeamsAlone() {
        String own = "Own team " + name;
        service.api()
                .put("/api/teams/" + own.replace(" ", "%20"), Map.of("addresses", List.of("fuel@skerryline.example")));
        save(Map.of("groups", List.of(line("fuel", "LEAD", team), line("staff", "READER", ""))));
        logIn(new Browser(service.baseUrl()));
        service.api()
                .put(
                        "/api/people/" + login,
                        Map.of(
                                "name",
                                "Kari",
                                "email",
                                "other@skerryline.example",
                                "role",
                                "ANALYST",
                                "teams",
                                List.of(team, own)));
        directory.put(new KnownUser(login, "Kari Nes Berg", kari.address(), kari.password(), Set.of("staff")));
        logIn(new Browser(service.baseUrl()));
        assertThat(user().path("name").asString()).isEqualTo("Kari Nes Berg");
        assertThat(user().path("role").asString()).isEqualTo("READER");
        assertThat(user().path("teams").toString()).isEqualTo("[\"" + own + "\"]");
    }

    @Test
    void refusesWhoIsInNoneOfTheGroups() {
        var body = provider(directory.issuer(), SECRET, Map.of("groups", List.of(line("bridge", "ANALYST", ""))));
        body.remove("otherRole");
        service.api().put("/api/identity-providers/" + name, body);
        var browser = new Browser(service.baseUrl());
        assertThat(logIn(browser).last().toString()).endsWith("/login?refused=no_group");
        assertThat(browser.api("GET", "/api/session", Map.of()).status()).isEqualTo(401);
        assertThat(service.api().get("/api/people").toString()).doesNotContain(login);
    }

    @Test
    void whoHasLostAllGroupsLosesSessionsAndTokensToo() {
        var body = provider(directory.issuer(), SECRET, Map.of("groups", List.of(line("fuel", "ANALYST", ""))));
        body.remove("otherRole");
        service.api().put("/api/identity-providers/" + name, body);
        var browser = new Browser(service.baseUrl());
        logIn(browser);
        var token = browser.api("POST", "/api/tokens/named", Map.of("name", "nightly", "scope", "READ", "days", 90));
        var program = new HttpApi(service.baseUrl(), token.body().path("token").asString());
        directory.put(new KnownUser(login, kari.name(), kari.address(), kari.password(), Set.of("gardeners")));
        assertThat(logIn(new Browser(service.baseUrl())).last().toString()).endsWith("/login?refused=no_group");
        assertThat(browser.api("GET", "/api/session", Map.of()).status()).isEqualTo(401);
        assertThat(program.send("GET", "/api/session", null, Map.of()).status()).isEqualTo(401);
    }

    @Test
    void logsOutAtTheProviderToo() {
        save(Map.of());
        var browser = new Browser(service.baseUrl());
        logIn(browser);
        assertThat(browser.sentTo("/sign-on/" + name).getPath()).isEqualTo("/oauth2/authorize");
        var leaving = browser.api("DELETE", "/api/session", Map.of());
        assertThat(leaving.status()).isEqualTo(200);
        var end = browser.follow(URI.create(leaving.body().path("continueAt").asString()), "nobody", "nothing");
        assertThat(end.last().toString()).isEqualTo(service.baseUrl() + "/login");
        assertThat(browser.api("GET", "/api/session", Map.of()).status()).isEqualTo(401);
        var again = browser.open("/sign-on/" + name, "nobody", "wrong");
        assertThat(again.last().getPath())
                .as("the provider asks for the password again")
                .isEqualTo("/login");
        assertThat(again.last().getPort())
                .isNotEqualTo(URI.create(service.baseUrl()).getPort());
    }

    @Test
    void endsSessionsAndTokensOfAPersonRemovedAtTheProvider() {
        save(Map.of("otherRole", "ANALYST"));
        var browser = new Browser(service.baseUrl());
        logIn(browser);
        var token = browser.api("POST", "/api/tokens/named", Map.of("name", "nightly", "scope", "READ", "days", 90));
        var program = new HttpApi(service.baseUrl(), token.body().path("token").asString());
        var confirmations = service.bean(Confirmations.class);
        long ago = Duration.ofMinutes(20).toSeconds();
        String older = "update provider_identity set confirmed_at = confirmed_at - interval '" + ago
                + " seconds' where subject = '" + login + "'";
        service.changeRecords(older);
        confirmations.confirmDue();
        assertThat(program.send("GET", "/api/session", null, Map.of()).status())
                .as("still there")
                .isEqualTo(200);
        directory.remove(login);
        confirmations.confirmDue();
        assertThat(program.send("GET", "/api/session", null, Map.of()).status())
                .as("asked a moment ago")
                .isEqualTo(200);
        service.changeRecords(older);
        confirmations.confirmDue();
        assertThat(program.send("GET", "/api/session", null, Map.of()).status()).isEqualTo(401);
        assertThat(browser.api("GET", "/api/session", Map.of()).status()).isEqualTo(401);
        assertThat(logIn(new Browser(service.baseUrl())).last().getPort())
                .as("stays at the provider, which knows nobody of that name")
                .isNotEqualTo(URI.create(service.baseUrl()).getPort());
        assertThat(service.api().get("/api/audit?q=" + login).toString())
                .contains("Skerry directory no longer vouches for this user");
    }

    @Test
    void refusesAStateThatCameBackBeforeAndOneOfAnotherBrowser() {
        save(Map.of());
        var browser = new Browser(service.baseUrl());
        var stranger = new Browser(service.baseUrl());
        stranger.sentTo("/sign-on/" + name);
        var away = browser.sentTo("/sign-on/" + name);
        String back = "/sign-on/" + name + "/return?code=made-up&state=" + parameter(away, "state");
        assertThat(stranger.sentTo(back).toString()).endsWith("/login?refused=expired");
        assertThat(browser.sentTo(back).toString()).endsWith("/login?refused=by_provider");
        assertThat(browser.sentTo(back).toString()).as("once only").endsWith("/login?refused=expired");
    }

    @Test
    void tellsAnOperatorWhatAnswersAtTheIssuer() {
        save(Map.of());
        var found = service.api().post("/api/identity-providers/" + name + "/test", Map.of());
        assertThat(found.path("keys").asInt()).isEqualTo(1);
        assertThat(found.path("logsOut").asBoolean()).isTrue();
        assertThat(found.path("warnings").toString()).isEqualTo("[]");
        var kept = service.api().get("/api/identity-providers").toString();
        assertThat(kept).contains("/sign-on/" + name + "/return").doesNotContain(SECRET);
    }
}
