package dev.oddsentry.service.outbox;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import tools.jackson.databind.JsonNode;

/** Records that were copied, restored or taken over by another installation start with all mail held. */
class RestoredRecordsTest {
    private final RunningService service = RunningService.get();
    private final String id = UUID.randomUUID().toString().substring(0, 8);
    private final LateSailings sailings = new LateSailings(service);
    private final String original = "original_" + id;

    private ConfigurableApplicationContext node(String database, String... settings) {
        return service.startNode(database, service.postgres().jdbcUrl(database), settings);
    }

    private static HttpApi api(ConfigurableApplicationContext node) {
        return HttpApi.loggedIn(RunningService.baseUrl(node), "operator", RunningService.OPERATOR_PASSWORD);
    }

    private static JsonNode holds(ConfigurableApplicationContext node) {
        return api(node).get("/api/holds");
    }

    private void original() {
        service.execute("postgres", "create database " + original);
        sailings.late("SK-1", 20);
        try (var node = node(original)) {
            var api = api(node);
            service.useFerry(api);
            api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
            api.push(sailings.rule());
            api.post("/api/rules/" + sailings.name + "/activate", "");
            assertThat(holds(node)).isEmpty();
        }
    }

    @Test
    void aCopyHoldsWhatItWouldSendAndTheOriginalDoesNot() throws InterruptedException {
        original();
        service.execute("postgres", "create database copy_" + id + " template " + original);
        try (var copy = node("copy_" + id)) {
            assertThat(holds(copy).path(0).path("reason").asString()).contains("they are in another database");
            assertThat(holds(copy).path(0).path("by").isNull()).isTrue();
            api(copy).check(sailings.name);
            service.senderHasPutOff(
                    "copy_" + id,
                    api(copy)
                            .get("/api/outbox")
                            .path("messages")
                            .path(0)
                            .path("id")
                            .asString());
            assertThat(service.mailTo(sailings.recipient)).isEmpty();
            assertThat(holds(copy).path(0).path("messages").asInt()).isEqualTo(1);
            assertThat(api(copy).get("/api/status").path("problems").toString()).contains("Outgoing mail is held");
            var hold = holds(copy).path(0).path("id").asInt();
            api(copy).post("/api/holds/" + hold + "/end", "");
            new Mails(service).sent(sailings.recipient, 1);
        }
        try (var again = node("copy_" + id)) {
            assertThat(holds(again)).as("it is known now").isEmpty();
        }
        try (var first = node(original)) {
            assertThat(holds(first)).isEmpty();
        }
    }

    @Test
    void aDumpLoadedOverTheSameDatabaseIsSeen() {
        original();
        service.execute(original, """
                create temporary table dumped as select * from installation;
                delete from installation;
                insert into installation select * from dumped;
                """);
        try (var restored = node(original)) {
            assertThat(holds(restored).path(0).path("reason").asString()).contains("they were loaded from a dump");
        }
    }

    @Test
    void recordsOfAnotherInstallationAreHeld() {
        original();
        try (var named = node(original, "--oddsentry.installation=tries")) {
            assertThat(holds(named).path(0).path("reason").asString())
                    .contains("last used by the installation without a name, and this one is tries");
        }
        try (var same = node(original, "--oddsentry.installation=tries")) {
            assertThat(holds(same)).as("the same hold, and no second").hasSize(1);
        }
    }
}
