package dev.oddsentry.service.accounts;

import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Role;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import java.util.regex.Pattern;
import org.jooq.DSLContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.JsonNode;

/** Users from their invitation to the day they are disabled. */
class AccountsTest {
    private static final Pattern LINK = Pattern.compile("/password#([A-Za-z0-9_-]+)");

    private final RunningService service = RunningService.get();
    private final HttpApi operator = service.api();
    private final HttpApi stranger = HttpApi.stranger(service.baseUrl());
    private final Mails mails = new Mails(service);
    private final String login = "per-" + UUID.randomUUID().toString().substring(0, 8);
    private final String address = login + "@skerryline.example";

    private JsonNode added(String password) {
        var body = new HashMap<String, Object>(
                Map.of("login", login, "name", "Per Aune", "email", address, "role", "ANALYST", "teams", List.of()));
        if (password != null) body.put("password", password);
        return operator.post("/api/people", body);
    }

    private HttpApi.Answer logIn(String password) {
        return stranger.postAnswer("/api/tokens", Map.of("login", login, "password", password));
    }

    private HttpApi.Answer set(String token, String password) {
        return stranger.postAnswer("/api/password-links/use", Map.of("token", token, "password", password));
    }

    private String linkIn(int messages) {
        RunningService.await("the link", () -> service.mailTo(address).size() == messages);
        var link = LINK.matcher(mails.lastText(address));
        assertThat(link.find()).isTrue();
        return link.group(1);
    }

    private JsonNode user() {
        return operator.get("/api/people?disabled=true")
                .valueStream()
                .filter(each -> each.path("login").asString().equals(login))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void invitedUserSetsAPasswordByTheLinkOnce() {
        assertThat(added(null).path("invited").asBoolean()).isTrue();
        String token = linkIn(1);
        assertThat(logIn("").status()).as("nobody logs in without a password").isEqualTo(401);
        assertThat(set(token, "short").status()).as("a weak password").isEqualTo(422);
        assertThat(set(token, "four unrelated words").status())
                .as("the link still works")
                .isEqualTo(204);
        assertThat(set(token, "four unrelated birds").text()).contains("has been used or has expired");
        assertThat(logIn("four unrelated words").status()).isEqualTo(201);
        assertThat(user().path("invited").asBoolean()).isFalse();
        assertThat(user().path("lastLogInAt").isNull()).isFalse();
    }

    @Test
    void laterLinkMakesTheEarlierOneUseless() {
        added(null);
        String first = linkIn(1);
        operator.post("/api/people/" + login + "/invitation", Map.of());
        String second = linkIn(2);
        assertThat(set(first, "four unrelated words").status()).isEqualTo(422);
        assertThat(set(second, "four unrelated words").status()).isEqualTo(204);
    }

    @Test
    void forgottenPasswordIsSetByALinkAndEndsWhatWasLoggedIn() {
        added("four unrelated words");
        var before = HttpApi.loggedIn(service.baseUrl(), login, "four unrelated words");
        assertThat(stranger.postAnswer("/api/password-links", Map.of("login", address.toUpperCase(Locale.ROOT)))
                        .status())
                .isEqualTo(202);
        String token = linkIn(1);
        assertThat(logIn("four unrelated words").status())
                .as("a request alone changes nothing")
                .isEqualTo(201);
        assertThat(set(token, "five unrelated words").status()).isEqualTo(204);
        assertThat(logIn("four unrelated words").status()).isEqualTo(401);
        assertThat(before.send("GET", "/api/rules", null, Map.of()).status()).isEqualTo(401);
    }

    @Test
    void nobodyLearnsWhetherThereIsSuchAUser() {
        var answer = stranger.postAnswer("/api/password-links", Map.of("login", "nobody-" + login));
        assertThat(answer.status()).isEqualTo(202);
        assertThat(answer.text()).isEmpty();
    }

    @Test
    void theLinkIsInNoOutboxAndNoAudit() {
        added(null);
        String token = linkIn(1);
        assertThat(service.countRecords(
                        "select count(*) from message where position('" + token + "'::bytea in mime) > 0"))
                .isZero();
        assertThat(service.countRecords("select count(*) from audit_event where detail like '%" + token + "%'"))
                .isZero();
        assertThat(operator.get("/api/outbox").toString()).doesNotContain(token);
    }

    @Test
    void disabledUserIsOutAtOnceAndComesBackWithTheirPassword() {
        added("four unrelated words");
        var token = HttpApi.loggedIn(service.baseUrl(), login, "four unrelated words");
        assertThat(operator.post("/api/people/" + login + "/disable", Map.of())
                        .path("active")
                        .asBoolean())
                .isFalse();
        assertThat(token.send("GET", "/api/rules", null, Map.of()).status()).isEqualTo(401);
        assertThat(logIn("four unrelated words").status()).isEqualTo(401);
        assertThat(operator.get("/api/people").toString()).doesNotContain(login);
        operator.post("/api/people/" + login + "/enable", Map.of());
        assertThat(token.send("GET", "/api/rules", null, Map.of()).status())
                .as("a token does not come back")
                .isEqualTo(401);
        assertThat(logIn("four unrelated words").status()).isEqualTo(201);
    }

    @Test
    void ownPasswordNeedsThePresentOne() {
        added("four unrelated words");
        var me = HttpApi.loggedIn(service.baseUrl(), login, "four unrelated words");
        var json = Map.of("Content-Type", "application/json");
        assertThat(me.send(
                                "PUT",
                                "/api/session/password",
                                "{\"present\":\"x\",\"password\":\"five unrelated words\"}",
                                json)
                        .text())
                .contains("The present password is wrong.");
        assertThat(me.send(
                                "PUT",
                                "/api/session/password",
                                "{\"present\":\"four unrelated words\",\"password\":\"five unrelated words\"}",
                                json)
                        .status())
                .isEqualTo(204);
        assertThat(me.send("GET", "/api/rules", null, Map.of()).status()).isEqualTo(401);
        assertThat(logIn("five unrelated words").status()).isEqualTo(201);
    }

    @ParameterizedTest
    @ValueSource(strings = {"Åse kjøper blåbær på Måkehamn", "  spaces at both ends  ", "🐟🐠🐡🦈🐬🐳🐋🦐🦑🐙"})
    void passwordsOfAnyCharactersWork(String password) {
        added(password);
        assertThat(logIn(password).status()).isEqualTo(201);
        assertThat(logIn(password.strip() + "x").status()).isEqualTo(401);
    }

    @Test
    void passwordOfSixHundredCharactersCountsToItsEnd() {
        String password = "four unrelated words ".repeat(30);
        added(password);
        assertThat(logIn(password).status()).isEqualTo(201);
        assertThat(logIn(password.substring(0, 500)).status()).isEqualTo(401);
    }

    @Test
    void nameAddressRoleAndTeamsAreChanged() {
        added("four unrelated words");
        String team = "Crew " + login;
        operator.put("/api/teams/" + team.replace(" ", "%20"), Map.of("addresses", List.of(address)));
        var changed = operator.put(
                "/api/people/" + login,
                Map.of("name", "Per A.", "email", address, "role", "LEAD", "teams", List.of(team)));
        assertThat(changed.path("role").asString()).isEqualTo("LEAD");
        assertThat(changed.path("teams").path(0).asString()).isEqualTo(team);
        var members = operator.put("/api/teams/" + team.replace(" ", "%20") + "/members", Map.of("members", List.of()));
        assertThat(members).isEmpty();
        assertThat(user().path("teams")).isEmpty();
        var unknown = operator.send(
                "PUT",
                "/api/people/" + login,
                "{\"name\":\"Per\",\"email\":\"" + address + "\",\"role\":\"LEAD\",\"teams\":[\"No such team\"]}",
                Map.of("Content-Type", "application/json"));
        assertThat(unknown.text()).contains("There is no team");
    }

    /** Other tests have operators of their own, and need this one: what is asked is taken back. */
    @Test
    void somebodyIsLeftToManageTheService() {
        var people = service.bean(People.class);
        var records = service.bean(DSLContext.class);
        service.bean(TransactionTemplate.class).executeWithoutResult(transaction -> {
            transaction.setRollbackOnly();
            records.update(PERSON)
                    .set(PERSON.ACTIVE, false)
                    .where(PERSON.LOGIN.ne("operator"))
                    .execute();
            var last = people.require("operator");
            assertThatThrownBy(() -> people.setActive(last, "operator", false))
                    .hasMessageContaining("You cannot disable yourself");
            var reader = new People.PersonDetails("Operator", last.email(), Role.READER, List.of());
            assertThatThrownBy(() -> people.change(last, "operator", reader))
                    .hasMessageContaining("Nobody would be left to manage the service");
        });
        assertThat(operator.get("/api/session").path("role").asString()).isEqualTo("OPERATOR");
    }
}
