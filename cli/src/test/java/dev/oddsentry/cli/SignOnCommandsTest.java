package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;

/** Identity providers and log-ins without a password, from the command line. */
class SignOnCommandsTest extends AgainstAService {
    private static final String SKERRY = """
            {"name":"skerry","title":"Skerry directory","issuer":"https://login.skerryline.example","clientId":"odd-sentry","hasSecret":true,\
            "scopes":["openid","profile"],"loginClaim":"preferred_username","groupClaim":"groups","knownBy":"ADDRESS","addsPeople":true,\
            "otherRole":null,"addressesVerified":false,"active":true,"groups":[{"group":"reporting","role":"LEAD","team":"Traffic reporting"}],\
            "returnAddress":"https://odd.skerryline.example/sign-on/skerry/return"}""";
    private static final String PUT = "PUT /api/identity-providers/skerry";

    @Test
    void providersAreListedWithWhatTheirGroupsMean() {
        answer("GET /api/identity-providers", "[" + SKERRY + "]");
        assertThat(odd("providers").out())
                .contains(
                        "Skerry directory",
                        "https://login.skerryline.example",
                        "reporting=lead,Traffic reporting; others=none",
                        "active");
    }

    @Test
    void aNewProviderIsSavedWithASecretFromInput() {
        answer("GET /api/identity-providers", "[]");
        answer(PUT, SKERRY);
        var before = System.in;
        System.setIn(new ByteArrayInputStream("s3cret\n".getBytes(StandardCharsets.UTF_8)));
        try {
            var ran = odd(
                    "save-provider",
                    "skerry",
                    "--title",
                    "Skerry directory",
                    "--issuer",
                    "https://login.skerryline.example",
                    "--client-id",
                    "odd-sentry",
                    "--secret-stdin",
                    "--group",
                    "cn=reporting,ou=groups=lead,Traffic reporting",
                    "--others",
                    "reader");
            assertThat(ran.err()).isEmpty();
            assertThat(ran.out())
                    .contains("Redirect URI: https://odd.skerryline.example/sign-on/skerry/return")
                    .doesNotContain("s3cret");
        } finally {
            System.setIn(before);
        }
        assertThat(asked.getLast())
                .contains(
                        "\"clientSecret\":\"s3cret\"",
                        "\"otherRole\":\"READER\"",
                        "{\"group\":\"cn=reporting,ou=groups\",\"role\":\"LEAD\",\"team\":\"Traffic reporting\"}");
    }

    @Test
    void whatIsNotGivenStays() {
        answer("GET /api/identity-providers", "[" + SKERRY + "]");
        answer(PUT, SKERRY);
        odd("save-provider", "skerry", "--no-active");
        assertThat(asked.getLast())
                .startsWith(PUT)
                .contains(
                        "\"active\":false",
                        "\"issuer\":\"https://login.skerryline.example\"",
                        "\"knownBy\":\"ADDRESS\"",
                        "\"group\":\"reporting\"")
                .doesNotContain("clientSecret");
    }

    @Test
    void aLineWithoutARoleIsRefusedBeforeAnythingIsSent() {
        answer("GET /api/identity-providers", "[]");
        var ran = odd("save-provider", "skerry", "--group", "reporting");
        assertThat(ran.status()).isEqualTo(2);
        assertThat(ran.err()).contains("\"reporting\" is not a group with a role");
        assertThat(asked).noneMatch(call -> call.startsWith("PUT"));
    }

    @Test
    void aProviderIsTestedAndRemoved() {
        answer(
                "POST /api/identity-providers/skerry/test",
                "{\"authorizationEndpoint\":\"x\",\"keys\":2,\"logsOut\":true,\"warnings\":[\"It lists no scope.\"]}");
        assertThat(odd("providers", "--test", "skerry").out())
                .contains(
                        "It answers. Signing keys: 2. Users are logged out there too.", "Warning: It lists no scope.");
        answer("DELETE /api/identity-providers/skerry", "");
        assertThat(odd("providers", "--remove", "skerry").out()).contains("Removed the identity provider skerry.");
    }

    @Test
    void passwordsAreSwitchedOffWithAnEmergencyOperator() {
        answer("GET /api/access-policy", "{\"teamsDecide\":true,\"passwords\":true,\"emergencyOperator\":null}");
        answer(
                "PUT /api/access-policy",
                "{\"teamsDecide\":true,\"passwords\":false,\"emergencyOperator\":\"operator\"}");
        assertThat(odd("access").out()).contains("Users can log in with a password.");
        assertThat(odd("access", "--no-passwords", "--emergency-operator", "operator")
                        .out())
                .contains("with a password, operator alone");
        assertThat(asked.getLast())
                .contains("\"teamsDecide\":true", "\"passwords\":false", "\"emergencyOperator\":\"operator\"");
    }

    @Test
    void aBrowserLogsTheCommandLineInOnceItIsAllowed() {
        answer(
                "POST /api/device-log-ins",
                "{\"deviceCode\":\"d\",\"userCode\":\"BCDF-GHJK\",\"verificationUri\":\"http://127.0.0.1:8480/device\",\"verificationUriComplete\":\"x\",\"expiresIn\":600,\"interval\":0}");
        answer("POST /api/device-log-ins/token", "{\"state\":\"WAITING\",\"token\":null}");
        var allowing = Thread.ofVirtual().start(() -> {
            while (count("POST /api/device-log-ins/token") < 2) Thread.onSpinWait();
            answer(
                    "POST /api/device-log-ins/token",
                    "{\"state\":\"ALLOWED\",\"token\":{\"token\":\"odd_browser\",\"expiresAt\":\"2027-02-28T04:40:00Z\"}}");
        });
        var ran = odd("login", "--browser");
        assertThat(ran.out())
                .contains(
                        "Open http://127.0.0.1:8480/device in a browser and enter the code BCDF-GHJK.", "as Ines Holm.")
                .doesNotContain("odd_browser");
        assertThat(allowing.isAlive()).isFalse();
        answer("POST /api/device-log-ins/token", "{\"state\":\"REFUSED\",\"token\":null}");
        var refused = odd("login", "--browser");
        assertThat(refused.status()).isEqualTo(3);
        assertThat(refused.err()).contains("The log-in was refused in the browser.");
    }

    private long count(String call) {
        synchronized (asked) {
            return asked.stream().filter(each -> each.startsWith(call)).count();
        }
    }
}
