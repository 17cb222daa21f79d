package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** Users, teams and who may do what, from the command line. */
class PeopleCommandsTest extends AgainstAService {
    private static final String PER =
            "{\"login\":\"per\",\"name\":\"Per Aune\",\"email\":\"per.aune@skerryline.example\",\"role\":\"ANALYST\",\"teams\":[\"Crew\"],\"active\":true,\"service\":false,\"invited\":true,\"providers\":[],\"lastLogInAt\":null}";

    @Test
    void invitedUserIsAddedWithoutAPassword() {
        answer("GET /api/access-policy", "{\"teamsDecide\":false,\"passwords\":true,\"emergencyOperator\":null}");
        answer("POST /api/people", PER);
        var ran = odd(
                "add-person",
                "per",
                "--name",
                "Per Aune",
                "--email",
                "per.aune@skerryline.example",
                "--team",
                "Crew",
                "--invite");
        assertThat(ran.out().strip())
                .isEqualTo("Added Per Aune; an invitation was sent to per.aune@skerryline.example.");
        assertThat(asked)
                .contains(
                        "POST /api/people {\"login\":\"per\",\"name\":\"Per Aune\",\"email\":\"per.aune@skerryline.example\",\"service\":false,\"password\":null,\"role\":\"ANALYST\",\"teams\":[\"Crew\"]}");
    }

    @Test
    void aServiceAccountHasNeitherAddressNorPasswordAndGetsATokenFromAnOperator() {
        answer("POST /api/people", PER.replace("\"service\":false", "\"service\":true"));
        assertThat(odd("add-person", "nightly", "--name", "Nightly export", "--service")
                        .status())
                .isZero();
        assertThat(asked.getLast()).contains("\"email\":\"\"", "\"service\":true", "\"password\":null");
        answer("POST /api/tokens/of/nightly", "{\"token\":\"odd_secret\",\"expiresAt\":\"2027-02-28T04:40:00Z\"}");
        assertThat(odd("create-token", "export", "--user", "nightly").out().strip())
                .isEqualTo("odd_secret");
    }

    @Test
    void whatDependsOnAUserIsListedAndHandedOver() {
        answer(
                "GET /api/people/per/belongings",
                "{\"aloneIn\":[\"Crew\"],\"reachedFor\":[\"Crew\"],\"mailedBy\":[{\"kind\":\"rule\",\"name\":\"late-sailings\",\"title\":\"Late sailings\",\"retired\":false}],\"taken\":[{\"name\":\"late-sailings\",\"count\":2}],\"drafts\":[],\"tokens\":1}");
        assertThat(odd("person", "per").out())
                .contains(
                        "nobody else is in it",
                        "one of its addresses",
                        "rule/late-sailings",
                        "2 taken",
                        "end when the user is disabled");
        answer(
                "POST /api/people/per/hand-over",
                "{\"definitions\":[{\"kind\":\"rule\",\"name\":\"late-sailings\",\"title\":\"Late sailings\",\"retired\":false}],\"teams\":[\"Crew\"],\"findings\":2}");
        assertThat(odd("hand-over", "--person", "per", "ines", "--reason", "leaves us")
                        .out())
                .contains(
                        "rule/late-sailings",
                        "address of the team Crew",
                        "Handed over to ines: 1 definition, 2 findings.");
    }

    @Test
    void whatIsNotGivenStaysAsItIs() {
        answer("GET /api/people?disabled=true", "[" + PER + "]");
        answer("PUT /api/people/per", PER);
        answer("POST /api/people/per/disable", PER);
        var ran = odd(
                "change-person",
                "per",
                "--role",
                "lead",
                "--add-team",
                "Traffic",
                "--remove-team",
                "Crew",
                "--disable");
        assertThat(ran.status()).isZero();
        assertThat(asked)
                .anyMatch(call -> call.startsWith("PUT /api/people/per ")
                        && call.contains("\"role\":\"LEAD\"")
                        && call.contains("\"teams\":[\"Traffic\"]")
                        && call.contains("\"name\":\"Per Aune\""))
                .anyMatch(call -> call.startsWith("POST /api/people/per/disable"));
    }

    @Test
    void unknownUserAndContradictionsAreRefused() {
        answer("GET /api/people?disabled=true", "[]");
        assertThat(odd("change-person", "pre", "--disable").err()).contains("There is no user \"pre\"");
        assertThat(odd("change-person", "per", "--disable", "--enable").err()).contains("exclude each other");
    }

    @Test
    void usersAreListedWithTheirTeams() {
        answer("GET /api/people", "[" + PER + "]");
        assertThat(odd("people").out()).contains("per.aune@skerryline.example", "analyst", "Crew", "invited");
    }

    @Test
    void whoChangesWhatATeamOwnsIsShownAndSet() {
        answer("GET /api/access-policy", "{\"teamsDecide\":false,\"passwords\":true,\"emergencyOperator\":null}");
        assertThat(odd("access").out()).contains("Every analyst changes and activates everything.");
        answer("PUT /api/access-policy", "{\"teamsDecide\":true,\"passwords\":true,\"emergencyOperator\":null}");
        assertThat(odd("access", "--teams-decide").out()).contains("Members of the owning team change what it owns");
        assertThat(asked)
                .contains(
                        "PUT /api/access-policy {\"teamsDecide\":true,\"passwords\":null,\"emergencyOperator\":null}");
    }

    @Test
    void auditIsAskedByPersonKindAndText() {
        answer(
                "GET /api/audit?by=ines&kind=LOG_INS&q=late%20sailings",
                "{\"entries\":[{\"id\":7,\"at\":\"2026-11-24T04:40:00Z\",\"login\":null,\"name\":null,\"act\":\"LOG_IN_REFUSED\",\"kind\":\"LOG_INS\",\"subject\":\"ines\",\"detail\":\"from 127.0.0.1\"}],\"next\":null}");
        var ran = odd("audit", "--by", "ines", "--kind", "log-ins", "--search", "late sailings");
        assertThat(ran.out()).contains("log in refused", "from 127.0.0.1");
        assertThat(odd("audit", "--kind", "look").err()).contains("\"look\" is not one of changes, looks, log-ins.");
    }
}
