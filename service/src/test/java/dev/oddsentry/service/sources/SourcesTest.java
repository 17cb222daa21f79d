package dev.oddsentry.service.sources;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RunningService;
import java.util.HashMap;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

/** What a source may be, and what is said of the role that it reads with. */
class SourcesTest {
    private final RunningService service = RunningService.get();
    private final String name = "source-" + UUID.randomUUID().toString().substring(0, 8);

    private HttpApi.Answer save(Map<String, Object> changes) {
        var body = new HashMap<String, Object>(Map.of(
                "jdbcUrl", service.postgres().jdbcUrl("ferry"), "username", "ferry_reader", "password", "reader"));
        body.putAll(changes);
        body.values().removeIf("none"::equals);
        return service.api()
                .send(
                        "PUT",
                        "/api/sources/" + name,
                        new JsonMapper().writeValueAsString(body),
                        Map.of("Content-Type", "application/json"));
    }

    private String refusal(Map<String, Object> changes) {
        var answer = save(changes);
        assertThat(answer.status()).as(answer.text()).isEqualTo(422);
        return answer.text();
    }

    @Test
    void roleThatOnlyReadsIsNotWarnedOf() {
        // Before PostgreSQL 15 everybody may create in the schema public.
        service.ferry("revoke create on schema public from public");
        var test = save(Map.of()).body().path("test");
        assertThat(test.path("reached").asBoolean()).as(test.toString()).isTrue();
        assertThat(test.path("warnings")).isEmpty();
    }

    @Test
    void roleThatMayDoMoreIsWarnedOfAtTheSaveAndTheTest() {
        var superuser = save(Map.of("username", "odd")).body().path("test");
        assertThat(superuser.path("warnings").toString())
                .contains("The role is a superuser", "may write to", "may create objects in");
        service.ferry("create table \"" + name + "\" (n int); create role \"" + name
                + "\" login password 'x'; grant insert on \"" + name + "\" to \"" + name + "\"");
        save(Map.of("username", name, "password", "x"));
        var warnings = service.api().post("/api/sources/" + name + "/test", "").path("warnings");
        assertThat(warnings.toString())
                .contains("The role may write to public." + name)
                .doesNotContain("superuser");
    }

    @Test
    void passwordIsAskedForAgainWhenTheAddressOrTheUserChanges() {
        save(Map.of());
        assertThat(save(Map.of("password", "none", "maxRows", 500)).status()).isEqualTo(200);
        assertThat(refusal(Map.of("password", "none", "jdbcUrl", "jdbc:postgresql://127.0.0.1:1/elsewhere")))
                .contains("Enter its password again");
        assertThat(refusal(Map.of("password", "none", "username", "odd"))).contains("Enter its password again");
        assertThat(service.api().get("/api/sources").toString()).doesNotContain("elsewhere");
    }

    @Test
    void addressThatLiftsLimitsOrHoldsAPasswordIsRefusedAndNotRepeated() {
        String address = service.postgres().jdbcUrl("ferry");
        assertThat(refusal(Map.of("jdbcUrl", address + "?readOnlyMode=ignore"))).contains("readOnlyMode");
        assertThat(refusal(Map.of("jdbcUrl", address + "?password=secret-7")))
                .contains("their own fields")
                .doesNotContain("secret-7");
        assertThat(service.count("records", "select count(*) from audit_event where detail like '%secret-7%'"))
                .isZero();
        assertThat(service.api()
                        .send(
                                "PUT",
                                "/api/sources/" + name,
                                "{\"jdbcUrl\":\"" + address
                                        + "\",\"username\":\"x\",\"password\":\"x\",\"maxConnections\":1}",
                                Map.of("Content-Type", "application/json"))
                        .status())
                .isEqualTo(422);
    }

    @Test
    void ownRecordsAreNoSourceUnderAnyAddress() {
        for (String host : new String[] {"127.0.0.1", "localhost"}) {
            var test = save(Map.of("jdbcUrl", service.records().replace("127.0.0.1", host), "username", "odd"))
                    .body()
                    .path("test");
            assertThat(test.path("reached").asBoolean()).isFalse();
            assertThat(test.path("detail").asString()).contains("Odd Sentry's own records");
        }
        var run = service.api()
                .postAnswer(
                        "/api/query-runs",
                        Map.of(
                                "document",
                                "kind: query\nname: own\nsource: " + name + "\nsql: select login from person\n"));
        assertThat(run.status()).isEqualTo(422);
        assertThat(run.text()).doesNotContain("operator");
    }
}
