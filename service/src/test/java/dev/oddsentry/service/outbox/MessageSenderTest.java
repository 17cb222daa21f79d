package dev.oddsentry.service.outbox;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.UnwillingMailServer;
import dev.oddsentry.service.UnwillingMailServer.Mood;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.springframework.context.ConfigurableApplicationContext;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.NullNode;

/** Mail servers that are down, busy, refuse, or lose the line. A node of its own on records of its own talks to each. */
class MessageSenderTest {
    private final RunningService service = RunningService.get();
    private ConfigurableApplicationContext node;
    private HttpApi api;

    private void nodeMailingTo(int port) {
        String database = "records_" + System.nanoTime();
        service.execute("postgres", "create database " + database);
        node = service.startNode(database, service.postgres().jdbcUrl(database), "--oddsentry.mail.port=" + port);
        api = HttpApi.loggedIn(RunningService.baseUrl(node), "operator", RunningService.OPERATOR_PASSWORD);
        service.useFerry(api);
    }

    @AfterEach
    void stop() {
        node.close();
    }

    private LateSailings watch(String recipients) {
        var sailings = new LateSailings(service).late("SK-1", 20);
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        api.push(sailings.rule().replace(sailings.recipient, recipients));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        return sailings;
    }

    private JsonNode recipient(int message, int index) {
        // Those who own the rule hear about addresses that do not exist, by mail of no rule.
        var ofRules = api.get("/api/outbox")
                .path("messages")
                .valueStream()
                .filter(each ->
                        !each.path("rule").isNull() || !each.path("roundUp").isNull())
                .toList();
        return ofRules.size() <= message
                ? NullNode.getInstance()
                : ofRules.get(message).path("recipients").path(index);
    }

    /** Of one answer: between two, a recipient that waits for its first try would be taken for one that was tried. */
    private static boolean isTriedAnd(String state, JsonNode recipient) {
        return recipient.path("state").asString().equals(state)
                && recipient.path("tries").asInt() > 0;
    }

    private void awaitState(int message, int index, String state) {
        RunningService.await(
                state + " of " + recipient(message, index),
                Duration.ofSeconds(40),
                () -> isTriedAnd(state, recipient(message, index)));
    }

    @Test
    void aBusyServerIsTriedAgainAndItsWordsAreKept() throws IOException {
        try (var server = new UnwillingMailServer(Mood.BUSY)) {
            nodeMailingTo(server.port());
            var sailings = watch("ines.holm@skerryline.example");
            api.check(sailings.name);
            awaitState(0, 0, "QUEUED");
            assertThat(recipient(0, 0).path("detail").asString()).contains("450 4.2.1 mailbox busy");
            server.mood(Mood.TAKE);
            awaitState(0, 0, "SENT");
            assertThat(server.taken()).hasSize(1);
            assertThat(recipient(0, 0).path("detail").asString()).contains("queued as T1");
        }
    }

    @Test
    void onlyThoseNotYetSentAreTriedAgain() throws IOException {
        try (var server = new UnwillingMailServer(Mood.REFUSE_ADDRESSES_WITH_NO)) {
            nodeMailingTo(server.port());
            var sailings = watch("no.one@skerryline.example, per.aune@skerryline.example");
            api.check(sailings.name);
            awaitState(0, 0, "REJECTED");
            awaitState(0, 1, "SENT");
            assertThat(server.taken()).as("nobody gets it twice").doesNotHaveDuplicates();
            assertThat(api.check(sailings.name).path("state").asString())
                    .as("someone got it, so it is reported")
                    .isEqualTo("QUIET");
        }
    }

    @Test
    void readersWithLinksOfTheirOwnKeepNobodyFromTheirs() throws IOException {
        try (var server = new UnwillingMailServer(Mood.REFUSE_ADDRESSES_WITH_NO)) {
            nodeMailingTo(server.port());
            var sailings =
                    watch("no.one@skerryline.example, per.aune@skerryline.example], allow_unsubscribe: true, cc: [");
            api.check(sailings.name);
            awaitState(0, 0, "REJECTED");
            awaitState(0, 1, "SENT");
            server.close();
            api.delete("/api/blocked-addresses/no.one@skerryline.example");
            sailings.late("SK-2", 20);
            api.check(sailings.name);
            awaitState(0, 0, "QUEUED");
            assertThat(recipient(0, 0).path("tries").asInt()).isPositive();
            assertThat(recipient(0, 1).path("detail").asString()).contains("did not take it");
        }
    }

    @Test
    void whatNobodyGotIsSaidAgainByTheNextCheck() throws IOException {
        try (var server = new UnwillingMailServer(Mood.REFUSE_RECIPIENTS)) {
            nodeMailingTo(server.port());
            var sailings = watch("ines.holm@skerryline.example");
            api.check(sailings.name);
            awaitState(0, 0, "REJECTED");
            server.mood(Mood.TAKE);
            assertThat(api.check(sailings.name).path("state").asString())
                    .as("nobody is there whom it could be said to")
                    .isEqualTo("QUIET");
            assertThat(api.get("/api/blocked-addresses").path(0).path("reason").asString())
                    .contains("no such mailbox");
            api.delete("/api/blocked-addresses/ines.holm@skerryline.example");
            var again = api.check(sailings.name);
            assertThat(again.path("state").asString()).isEqualTo("FIRED");
            assertThat(again.path("updates").asInt()).isEqualTo(1);
            awaitState(0, 0, "SENT");
        }
    }

    @Test
    void aLineLostAfterTheDataIsUnsureAndSentOnceMoreUnderTheSameMessageId() throws IOException {
        try (var server = new UnwillingMailServer(Mood.TAKE_AND_DROP_BEFORE_ANSWER)) {
            nodeMailingTo(server.port());
            var sailings = watch("ines.holm@skerryline.example");
            api.check(sailings.name);
            awaitState(0, 0, "UNSURE");
            server.mood(Mood.TAKE);
            awaitState(0, 0, "SENT");
            assertThat(server.taken()).hasSize(2).containsOnly(server.taken().getFirst());
        }
    }

    @Test
    void whatMayHaveArrivedIsNotTakenBackWhenALaterTryIsRefused() throws IOException {
        try (var server = new UnwillingMailServer(Mood.TAKE_AND_DROP_BEFORE_ANSWER)) {
            nodeMailingTo(server.port());
            api.put("/api/teams/Traffic%20reporting", Map.of("addresses", List.of("traffic@skerryline.example")));
            var sailings = watch("ines.holm@skerryline.example");
            api.check(sailings.name);
            awaitState(0, 0, "UNSURE");
            server.mood(Mood.REFUSE_RECIPIENTS);
            awaitState(0, 0, "UNCONFIRMED");
            server.mood(Mood.TAKE);
            assertThat(api.check(sailings.name).path("state").asString())
                    .as("nobody is told twice by the service itself")
                    .isEqualTo("QUIET");
            assertThat(api.get("/api/status").path("unconfirmed").asInt()).isEqualTo(1);
            assertThat(api.get("/api/status").path("problems").toString()).contains("may not have arrived");
            RunningService.await(
                    "a notice to the owner", () -> noticeTo("traffic@skerryline.example", "May not have arrived: "));
            api.delete("/api/blocked-addresses/ines.holm@skerryline.example");
            String id = idOfRuleMail(0);
            assertThat(api.post("/api/outbox/" + id + "/report-again", "")
                            .path("count")
                            .asInt())
                    .isEqualTo(1);
            assertThat(api.get("/api/status").path("unconfirmed").asInt())
                    .as("a person has settled it")
                    .isZero();
            assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
        }
    }

    @Test
    void aPersonNotesThatAnUnconfirmedMessageArrived() throws IOException {
        try (var server = new UnwillingMailServer(Mood.TAKE_AND_DROP_BEFORE_ANSWER)) {
            nodeMailingTo(server.port());
            var sailings = watch("ines.holm@skerryline.example");
            api.check(sailings.name);
            awaitState(0, 0, "UNSURE");
            server.mood(Mood.REFUSE_WITH_NUL);
            awaitState(0, 0, "UNCONFIRMED");
            assertThat(api.post("/api/outbox/" + idOfRuleMail(0) + "/confirm", "")
                            .path("count")
                            .asInt())
                    .isEqualTo(1);
            assertThat(api.get("/api/status").path("unconfirmed").asInt()).isZero();
            assertThat(api.postAnswer("/api/outbox/" + idOfRuleMail(0) + "/confirm", "")
                            .status())
                    .isEqualTo(409);
            assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
        }
    }

    @Test
    void ownersOperatorsAndStatusKnowOfMailThatReachesNobody() throws IOException {
        try (var server = new UnwillingMailServer(Mood.REFUSE_WITH_NUL)) {
            nodeMailingTo(server.port());
            api.put("/api/teams/Traffic%20reporting", Map.of("addresses", List.of("ines.holm@skerryline.example")));
            var sailings = watch("ines.holm@skerryline.example");
            api.check(sailings.name);
            awaitState(0, 0, "REJECTED");
            assertThat(recipient(0, 0).path("detail").asString()).contains("550 5.7.1 not here");
            assertThat(api.get("/api/status").path("problems").toString())
                    .contains("The latest message of " + sailings.name + " reached nobody");
            assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
            awaitState(0, 0, "REJECTED");
            RunningService.await("a notice by another way", () -> noticeTo("operator@localhost", "Not delivered: "));
            assertThat(api.get("/api/outbox").path("messages").valueStream().filter(MessageSenderTest::isNotice))
                    .as("one a day")
                    .hasSize(1);
            server.mood(Mood.TAKE);
            assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
            awaitState(0, 0, "SENT");
            assertThat(api.get("/api/status").path("notDelivered").isEmpty()).isTrue();
        }
    }

    private static boolean isNotice(JsonNode message) {
        return message.path("subject").asString().startsWith("Not delivered: ");
    }

    private boolean noticeTo(String address, String subject) {
        return api.get("/api/outbox")
                .path("messages")
                .valueStream()
                .anyMatch(each -> each.path("subject").asString().startsWith(subject)
                        && each.path("recipients")
                                .path(0)
                                .path("address")
                                .asString()
                                .equals(address));
    }

    private String idOfRuleMail(int message) {
        return api.get("/api/outbox")
                .path("messages")
                .valueStream()
                .filter(each -> !each.path("rule").isNull())
                .toList()
                .get(message)
                .path("id")
                .asString();
    }

    @ParameterizedTest
    @EnumSource(names = {"TOO_LARGE", "ANNOUNCE_SIZE"})
    void whatIsTooLargeForTheServerGoesPackedOrWithALink(Mood mood) throws IOException {
        try (var server = new UnwillingMailServer(mood)) {
            nodeMailingTo(server.port());
            var sailings = new LateSailings(service);
            sailings.change(
                    "insert into sailing_table select 'SK-' || n, 20, md5(n::text) from generate_series(1, 900) n");
            api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
            String rule = sailings.exceptions("delay_min > 15").rule();
            api.push(rule.replace("delivery: { to: ", "delivery: { attach: [csv, html], to: "));
            api.post("/api/rules/" + sailings.name + "/activate", "");
            api.check(sailings.name);
            awaitState(0, 0, "SENT");
            assertThat(server.taken()).hasSize(1);
            String id = idOfRuleMail(0);
            String mail = new String(api.bytes("/api/outbox/" + id + "/source"), StandardCharsets.UTF_8);
            assertThat(mail.contains(".zip") || !mail.contains("Content-Disposition: attachment"))
                    .as(mail)
                    .isTrue();
            assertThat(api.get("/api/outbox/" + id).path("files")).isNotEmpty();
        }
    }

    @Test
    void aServerThatDripsStopsNoChecksAndEndsNoWorkerForGood() throws IOException {
        try (var server = new UnwillingMailServer(Mood.DRIP)) {
            nodeMailingTo(server.port());
            var sailings = watch("ines.holm@skerryline.example");
            assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
            awaitState(0, 0, "QUEUED");
            server.mood(Mood.TAKE);
            awaitState(0, 0, "SENT");
        }
    }

    @Test
    void aServerThatIsDownDelaysTheMailAndNotTheCheck() throws IOException {
        int port;
        try (var server = new UnwillingMailServer(Mood.DROP_BEFORE_DATA)) {
            port = server.port();
        }
        nodeMailingTo(port);
        var sailings = watch("ines.holm@skerryline.example");
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
        awaitState(0, 0, "QUEUED");
        assertThat(recipient(0, 0).path("detail").asString()).contains("did not take it");
    }

    @Test
    void aRoundUpThatNobodyGotIsSaidAgain() throws IOException {
        try (var server = new UnwillingMailServer(Mood.TAKE)) {
            nodeMailingTo(server.port());
            var sailings = watch("ines.holm@skerryline.example");
            api.push("kind: round-up\nname: week\nowner: Traffic reporting\nrules: [" + sailings.name
                    + "]\nto: [lead@skerryline.example]\nschedule: { start: 2026-01-01T08:00, recur: FREQ=YEARLY }\n");
            api.check(sailings.name);
            awaitState(0, 0, "SENT");
            server.mood(Mood.REFUSE_RECIPIENTS);
            assertThat(api.post("/api/round-ups/week/send", "").path("message").isNull())
                    .isFalse();
            awaitState(0, 0, "REJECTED");
            server.mood(Mood.TAKE);
            api.delete("/api/blocked-addresses/lead@skerryline.example");
            assertThat(api.check(sailings.name).path("state").asString())
                    .as("what the rule told its own stays told")
                    .isEqualTo("QUIET");
            assertThat(api.post("/api/round-ups/week/send", "").path("message").isNull())
                    .isFalse();
            awaitState(0, 0, "SENT");
        }
    }

    @Test
    void aLaterMailWaitsForTheEarlierOfItsAudience() throws IOException {
        try (var server = new UnwillingMailServer(Mood.BUSY)) {
            nodeMailingTo(server.port());
            var sailings = watch("ines.holm@skerryline.example");
            api.check(sailings.name);
            awaitState(0, 0, "QUEUED");
            sailings.late("SK-2", 20);
            api.check(sailings.name);
            server.mood(Mood.TAKE);
            awaitState(0, 0, "SENT");
            awaitState(1, 0, "SENT");
            assertThat(server.taken()).containsExactly(messageId(1), messageId(0));
        }
    }

    private String messageId(int message) {
        String id =
                api.get("/api/outbox").path("messages").path(message).path("id").asString();
        return api.get("/api/outbox/" + id).path("messageId").asString();
    }

    @Test
    void anInstallationForTriesMailsNobodyElseAndOthersOnlyAllowedDomains() throws IOException {
        try (var server = new UnwillingMailServer(Mood.TAKE)) {
            String database = "records_" + System.nanoTime();
            service.execute("postgres", "create database " + database);
            node = service.startNode(
                    database,
                    service.postgres().jdbcUrl(database),
                    "--oddsentry.mail.port=" + server.port(),
                    "--oddsentry.mail.test-address=tries@skerryline.example",
                    "--oddsentry.mail.allowed-domains=skerryline.example");
            api = HttpApi.loggedIn(RunningService.baseUrl(node), "operator", RunningService.OPERATOR_PASSWORD);
            service.useFerry(api);
            var sailings = watch("ines.holm@skerryline.example");
            assertThat(api.pushAnswer(sailings.rule().replace(sailings.recipient, "siv@elsewhere.example"))
                            .text())
                    .contains("the operator allows no mail to the domain of siv@elsewhere.example");
            api.check(sailings.name);
            awaitState(0, 0, "SENT");
            assertThat(recipient(0, 0).path("address").asString()).isEqualTo("tries@skerryline.example");
            assertThat(api.get("/api/outbox")
                            .path("messages")
                            .path(0)
                            .path("subject")
                            .asString())
                    .startsWith("[Test] 1 warning: ");
        }
    }
}
