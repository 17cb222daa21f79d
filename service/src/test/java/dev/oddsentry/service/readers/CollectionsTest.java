package dev.oddsentry.service.readers;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.RunningService;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** What is kept back for a recipient who chose a pause or a collection, and what becomes of it. */
class CollectionsTest extends ReaderLab {
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
        mails.sent(reader, 2);
        assertThat(mails.subjects(reader).getLast()).isEqualTo("Collected so far: 2 messages");
        assertThat(mails.lastText(reader)).containsSubsequence("SK-3", "SK-4").doesNotContain("SK-2");
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
        mails.sent(reader, 3);
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

    /** A node holds some of the files at a time. */
    @Test
    void whatIsTooLargeForOneGoesInSeveralMails() {
        active("to: [" + reader + "]");
        late("SK-1");
        mails.sent(reader, 1);
        act(link(reader), "act=choose&definition={id}&how=daily&hour=23");
        for (int i = 2; i <= 4; i++) late("SK-" + i);
        // As long as mails with large files are, without anything that a mail program shows.
        service.changeRecords(
                "update message set mime = mime || convert_to(repeat(E'\\r\\n', 4500000), 'UTF8') where id in (select message_id"
                        + " from message_recipient where state = 'WAITING' and address = '" + reader + "')");
        itsTime();
        mails.sent(reader, 4);
        assertThat(mails.subjects(reader).subList(1, 4)).containsOnly("Daily collection: 1 message");
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
}
