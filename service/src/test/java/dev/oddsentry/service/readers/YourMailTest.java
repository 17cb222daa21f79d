package dev.oddsentry.service.readers;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** What a recipient without an account does by the link in each message, and what comes of it. */
class YourMailTest {
    private static final Map<String, String> FORM = Map.of("Content-Type", "application/x-www-form-urlencoded");

    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final HttpApi stranger = HttpApi.stranger(service.baseUrl());
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private final String reader = sailings.recipient;
    private final String other = "other-" + sailings.recipient;

    private void active(String delivery) {
        sailings.saved();
        api.push(sailings.rule().replace("delivery: { to: [" + reader + "] }", "delivery: { " + delivery + " }"));
        api.post("/api/rules/" + sailings.name + "/activate", "");
    }

    private void late(String sailing) {
        sailings.late(sailing, 20);
        api.check(sailings.name);
    }

    private String link(String address) {
        var found =
                Pattern.compile("Change what you get:\\s+https?://[^/]+(\\S+)").matcher(mails.lastText(address));
        assertThat(found.find()).as(mails.lastText(address)).isTrue();
        return found.group(1);
    }

    private String page(String link) {
        var answer = stranger.send("GET", link, null, Map.of());
        assertThat(answer.status()).isEqualTo(200);
        return answer.text();
    }

    private HttpApi.Answer act(String link, String form) {
        var id = Pattern.compile("name=\"definition\" value=\"([^\"]+)\"").matcher(page(link));
        assertThat(id.find()).isTrue();
        return stranger.send("POST", link, form.replace("{id}", id.group(1)), FORM);
    }

    private String chosen(String field) {
        return api.get("/api/rules/" + sailings.name + "/reader-choices")
                .path(0)
                .path(field)
                .asString();
    }

    /** As if the time of the next collection had come. */
    private void itsTime() {
        service.changeRecords(
                "update reader_choice set next_collection = now() - interval '1 second', paused_until = case when"
                        + " paused_until is null then null else now() end where address = '" + reader + "'");
    }

    @Test
    void saysWhatTheReaderGetsAndWhyAndLookingChangesNothing() {
        active("to: [" + reader + ", " + other + "]");
        late("SK-1");
        mails.sent(reader, 1);
        mails.sent(other, 1);
        String page = page(link(reader));
        assertThat(page)
                .contains("Everything that is sent to " + reader, "Late sailings of " + sailings.name)
                .contains("Traffic reporting sends it to you as a named recipient.", "1 message in the last 30 days.")
                .contains(
                        "You get each message when it is ready.",
                        "All messages of a day together",
                        "Nothing for a while")
                .doesNotContain("SK-1", other, "<script");
        assertThat(api.get("/api/rules/" + sailings.name + "/reader-choices")).isEmpty();
        assertThat(link(reader)).isNotEqualTo(link(other));
        String stored = api.get("/api/outbox/" + link(reader).split("/")[2])
                .path("text")
                .asString();
        for (String wrong : List.of(
                link(reader) + "x",
                link(reader).replaceAll("/your-mail/[^/]+", "/your-mail/" + java.util.UUID.randomUUID()),
                link(reader).replace("your-mail", "leave"),
                "/your-mail/x/y",
                stored.replaceAll("(?s).*Change what you get:\\s+https?://[^/]+(\\S+).*", "$1")))
            assertThat(stranger.send("GET", wrong, null, Map.of()).status())
                    .as(wrong)
                    .isEqualTo(404);
    }

    @Test
    void keepsMessagesForACollectionAndSendsThemInOne() {
        active("to: [" + reader + ", " + other + "], attach: [csv]");
        late("SK-1");
        mails.sent(reader, 1);
        var saved = act(link(reader), "act=choose&definition={id}&how=weekly&day=3&hour=6");
        assertThat(saved.text()).contains("Saved: Late sailings", "Collected weekly. Next: ", "6:00");
        assertThat(chosen("collect") + chosen("collectDay")).isEqualTo("weeklywednesday");
        String link = link(reader);
        late("SK-2");
        late("SK-3");
        mails.sent(other, 3);
        mails.sent(reader, 1);
        assertThat(page(link)).contains("2 messages are kept for you.");
        RunningService.await("one has it and one waits", () -> {
            var recipients = api.get("/api/outbox?rule=" + sailings.name)
                    .path("messages")
                    .path(0)
                    .path("recipients")
                    .toString();
            return recipients.contains("WAITING") && recipients.contains("SENT");
        });

        itsTime();
        mails.sent(reader, 2);
        assertThat(mails.subjects(reader).getLast()).isEqualTo("Weekly collection: 2 messages");
        assertThat(mails.lastText(reader))
                .containsSubsequence("SK-2", "SK-3")
                .doesNotContain("SK-1")
                .contains("These messages were kept for you")
                .containsPattern("attached: " + sailings.name + "-[0-9-]+-2\\.csv");
        var after = api.get("/api/outbox?rule=" + sailings.name)
                .path("messages")
                .path(0)
                .path("recipients");
        assertThat(after.toString()).contains("COLLECTED").doesNotContain("WAITING");
        String collection = after.valueStream()
                .map(each -> each.path("collectedIn").asString())
                .filter(each -> each.length() == 36)
                .findFirst()
                .orElseThrow();
        assertThat(api.get("/api/outbox/" + collection)
                        .path("message")
                        .path("collection")
                        .asBoolean())
                .isTrue();
        assertThat(api.get("/api/outbox/" + collection).path("files").size())
                .as("each message's file")
                .isEqualTo(2);
        assertThat(chosen("collect")).isEqualTo("weekly");

        assertThat(page(link(reader))).contains("Collected weekly").doesNotContain("kept for you");
        late("SK-4");
        mails.sent(other, 4);
        act(link(reader), "act=choose&definition={id}&how=each");
        mails.sent(reader, 3);
        assertThat(mails.subjects(reader).getLast()).isEqualTo("Collected so far: 1 message");
        assertThat(mails.lastText(reader)).contains("SK-4");
        RunningService.await(
                "nothing is chosen any more",
                () -> api.get("/api/rules/" + sailings.name + "/reader-choices").isEmpty());
        late("SK-5");
        mails.sent(reader, 4);
        assertThat(mails.lastText(reader)).contains("SK-5");
    }

    @Test
    void aPauseEndsWithAllThatCameMeanwhile() {
        active("to: [" + reader + "], max_per_hour: 9");
        late("SK-1");
        mails.sent(reader, 1);
        String link = link(reader);
        var today = LocalDate.now(ZoneId.of("Europe/Oslo"));
        for (String wrong :
                List.of("", "soon", today.toString(), today.plusDays(91).toString())) {
            var refused = act(link, "act=choose&definition={id}&how=pause&until=" + wrong);
            assertThat(refused.status()).as(wrong).isEqualTo(422);
            assertThat(refused.text()).contains("Choose a date from");
        }
        assertThat(act(link, "act=choose&definition={id}&how=pause&until=" + today.plusDays(8))
                        .text())
                .contains("Paused until");
        late("SK-2");
        assertThat(api.check(sailings.name).path("state").asString())
                .as("what is kept for the reader is reported")
                .isEqualTo("QUIET");
        mails.sent(reader, 1);
        assertThat(api.get("/api/recipients/" + reader).toString()).contains("pausedUntil");
        itsTime();
        mails.sent(reader, 2);
        assertThat(mails.subjects(reader).getLast()).isEqualTo("After your pause: 1 message");
        late("SK-3");
        mails.sent(reader, 3);
    }

    @Test
    void theOwnerSaysWhatMayBeChosenAndEndsAChoice() {
        active("to: [" + reader + "], refuse_choices: [pause, link], allow_unsubscribe: true");
        late("SK-1");
        mails.sent(reader, 1);
        String link = link(reader);
        assertThat(page(link))
                .contains("All messages of a day")
                .doesNotContain("Nothing for a while", "Files as links");
        var refused = act(link, "act=choose&definition={id}&how=pause&until=2099-01-01");
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("The sender does not allow this choice.");
        act(link, "act=choose&definition={id}&how=daily&hour=23");
        late("SK-2");
        mails.sent(reader, 1);
        api.delete("/api/rules/" + sailings.name + "/reader-choices/" + reader);
        mails.sent(reader, 2);
        assertThat(mails.lastText(reader)).contains("SK-2");

        act(link, "act=choose&definition={id}&how=daily&hour=23");
        api.push(sailings.rule()
                .replace(
                        "delivery: { to: [" + reader + "] }",
                        "delivery: { to: [" + reader + "], refuse_choices: [pause, collect, link] }"));
        late("SK-3");
        mails.sent(reader, 3);
        assertThat(page(link(reader))).contains("The sender does not offer other ways");
        assertThat(act(link, "act=leave&definition={id}").status())
                .as("the rule does not allow it any more")
                .isEqualTo(422);
        assertThat(api.send(
                                "DELETE",
                                "/api/rules/" + sailings.name + "/reader-choices/nobody@skerryline.example",
                                null,
                                Map.of())
                        .status())
                .isEqualTo(404);
    }

    @Test
    void aReaderLeavesAndComesBackAndWhatWaitedIsNotSent() {
        active("to: [" + reader + ", " + other + "], allow_unsubscribe: true");
        late("SK-1");
        mails.sent(reader, 1);
        String link = link(reader);
        act(link, "act=choose&definition={id}&how=daily&hour=23");
        late("SK-2");
        mails.sent(other, 2);
        assertThat(act(link, "act=leave&definition={id}").text()).contains("You are unsubscribed", "Resubscribe");
        itsTime();
        RunningService.await(
                "what waited is cancelled",
                () -> api.get("/api/outbox?rule=" + sailings.name).toString().contains("The recipient unsubscribed."));
        assertThat(act(link, "act=return&definition={id}").text()).contains("You are subscribed to");
        mails.sent(reader, 1);
    }

    @Test
    void whatWaitsIsHeldCancelledAndThrownAwayLikeOtherMail() {
        active("to: [" + reader + "]");
        late("SK-1");
        mails.sent(reader, 1);
        String link = link(reader);
        act(link, "act=choose&definition={id}&how=daily&hour=23");
        late("SK-2");
        String cancelled = api.get("/api/outbox?rule=" + sailings.name)
                .path("messages")
                .path(0)
                .path("id")
                .asString();
        assertThat(api.post("/api/outbox/" + cancelled + "/cancel", "")
                        .path("count")
                        .asInt())
                .isEqualTo(1);
        late("SK-3");
        api.post("/api/holds", Map.of("rule", sailings.name, "reason", "a test"));
        act(link, "act=choose&definition={id}&how=each");
        late("SK-4");
        var hold = api.get("/api/holds")
                .valueStream()
                .filter(each -> each.path("rule").asString().equals(sailings.name))
                .findFirst()
                .orElseThrow();
        assertThat(hold.path("messages").asInt()).isEqualTo(2);
        api.post("/api/holds/" + hold.path("id").asLong() + "/end", "");
        mails.sent(reader, 3);
        assertThat(mails.subjects(reader)).contains("Collected so far: 1 message");
        act(link, "act=choose&definition={id}&how=daily&hour=23");
        api.post("/api/holds", Map.of("rule", sailings.name, "reason", "a test"));
        late("SK-5");
        long second = api.get("/api/holds")
                .valueStream()
                .filter(each -> each.path("rule").asString().equals(sailings.name))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asLong();
        assertThat(api.post("/api/holds/" + second + "/end?discard=true", "")
                        .path("messages")
                        .asInt())
                .isEqualTo(1);
        act(link, "act=choose&definition={id}&how=each");
        late("SK-6");
        mails.sent(reader, 4);
        assertThat(mails.lastText(reader)).contains("SK-6");
    }

    @Test
    void aRoundUpIsCollectedPausedAndLeftToo() {
        String lead = "lead-" + reader;
        String roundUp = "/api/round-ups/" + sailings.name;
        sailings.active();
        api.push("""
                kind: round-up
                name: %s
                owner: Traffic reporting
                rules: [%s]
                to: [%s]
                allow_unsubscribe: true
                schedule: { start: 2026-01-01T08:00, recur: FREQ=YEARLY }
                """.formatted(sailings.name, sailings.name, lead));
        late("SK-1");
        api.post(roundUp + "/send", "");
        mails.sent(lead, 1);
        String link = link(lead);
        assertThat(mails.lastText(lead)).containsPattern("Unsubscribe: \\S+/leave/");
        assertThat(page(link)).contains("1 message in the last 30 days.").doesNotContain("Files as links");
        act(link, "act=choose&definition={id}&how=weekly&day=7&hour=0");
        assertThat(api.get(roundUp + "/reader-choices")
                        .path(0)
                        .path("collectDay")
                        .asString())
                .isEqualTo("sunday");
        late("SK-2");
        api.post(roundUp + "/send", "");
        service.changeRecords("update reader_choice set next_collection = now() where address = '" + lead + "'");
        mails.sent(lead, 2);
        assertThat(mails.subjects(lead).getLast()).isEqualTo("Weekly collection: 1 message");
        assertThat(mails.lastText(lead)).contains("SK-2").doesNotContain("/leave/");
        act(link, "act=leave&definition={id}");
        assertThat(api.get(roundUp + "/unsubscribed").path(0).path("address").asString())
                .isEqualTo(lead);
        api.delete(roundUp + "/unsubscribed/" + lead);
        late("SK-3");
        api.delete(roundUp + "/reader-choices/" + lead);
        api.post(roundUp + "/send", "");
        mails.sent(lead, 3);
        assertThat(mails.lastText(lead)).contains("SK-3");
    }

    @Test
    void aCollectionThatNobodyGetsLeavesItsMessagesUnreported() {
        String gone = "no-such-" + reader;
        active("to: [" + gone + "]");
        late("SK-1");
        RunningService.await(
                "it was handed over",
                () -> api.get("/api/outbox?rule=" + sailings.name).toString().contains("SENT"));
        String link = link(gone);
        act(link, "act=choose&definition={id}&how=daily&hour=23");
        late("SK-2");
        service.changeRecords("insert into blocked_address (address, response, message_id, since) select '" + gone
                + "', '550 no such user', id, now() from message where rule_id = (select id from definition where kind = 'RULE' and name = '"
                + sailings.name + "') limit 1");
        service.changeRecords("update reader_choice set next_collection = now() where address = '" + gone + "'");
        RunningService.await(
                "the message in it was rejected",
                () -> api.get("/api/outbox?rule=" + sailings.name)
                        .path("messages")
                        .path(0)
                        .path("recipients")
                        .toString()
                        .contains("REJECTED"));
        service.changeRecords("update blocked_address set ended_at = now() where address = '" + gone + "'");
        act(link, "act=choose&definition={id}&how=each");
        api.check(sailings.name);
        mails.sent(gone, 2);
        assertThat(mails.lastText(gone)).contains("SK-2");
    }

    @Test
    void aReaderWithoutAnAccountGetsNoFilesBehindTheLogIn() {
        HttpApi.newUser(service, "harbour-" + sailings.name, "READER", List.of(), other);
        active("to: [" + reader + ", " + other + "], attach: [csv]");
        late("SK-1");
        mails.sent(reader, 1);
        mails.sent(other, 1);
        assertThat(page(link(reader))).doesNotContain("Files as links");
        assertThat(page(link(other))).contains("Files as links");
        act(link(other), "act=choose&definition={id}&how=each&link=yes");
        late("SK-2");
        mails.sent(reader, 2);
        mails.sent(other, 2);
        assertThat(mails.lastText(other)).contains("Files in the online report, as you chose: ");
        assertThat(mails.lastText(reader)).doesNotContain("as you chose");
    }

    @Test
    void aReaderAsksTheOwnerAndSetsTheirLanguage() {
        String team = "Harbour " + sailings.name;
        String desk = "desk-" + reader;
        api.put("/api/teams/" + team.replace(" ", "%20"), Map.of("addresses", List.of(desk)));
        sailings.saved();
        api.push(sailings.rule().replace("owner: Traffic reporting", "owner: " + team));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        late("SK-1");
        mails.sent(reader, 1);
        String link = link(reader);
        assertThat(act(link, "act=ask&definition={id}&question=+").status()).isEqualTo(422);
        assertThat(act(link, "act=ask&definition={id}&question=Why+%3CSK-1%3E%3F%0D%0ABcc%3A+x%40y")
                        .text())
                .contains("Your question was sent to " + team);
        mails.sent(desk, 1);
        assertThat(mails.subjects(desk)).containsExactly("Question about \"Late sailings of " + sailings.name + "\"");
        assertThat(mails.lastText(desk)).contains("> Why <SK-1>?", "> Bcc: x@y", "Your answer goes to " + reader);
        assertThat(service.mailTo(desk).getLast())
                .satisfies(mail -> assertThat(mail.getReplyTo()[0].toString()).isEqualTo(reader));
        for (int i = 1; i < OwnerQuestions.MOST_A_DAY; i++) act(link, "act=ask&definition={id}&question=again");
        var tooMany = act(link, "act=ask&definition={id}&question=once+more");
        assertThat(tooMany.status()).isEqualTo(422);
        assertThat(tooMany.text()).contains("You asked 5 questions in a day.", "once more");

        assertThat(act(link, "act=language&language=nb").text())
                .contains("E-posten din fra Odd Sentry", "Språket ditt er lagret.");
        assertThat(act(link, "act=language&language=xx").status()).isEqualTo(422);
        late("SK-2");
        mails.sent(reader, 2);
        assertThat(mails.lastText(reader)).contains("Endre hva du får");
        assertThat(act(link, "act=something&definition={id}").status()).isEqualTo(422);
        assertThat(act(link, "act=choose&definition=" + java.util.UUID.randomUUID())
                        .status())
                .isEqualTo(422);
    }
}
