package dev.oddsentry.service.recipients;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Who reads what: in their own language, at addresses that rows name, and not where an address was mistyped. */
class LanguagesTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private final String german = "de-" + sailings.recipient;

    private void language(String address, String language) {
        api.put("/api/languages/" + address, Collections.singletonMap("language", language));
    }

    @AfterEach
    void forget() {
        language(german, null);
    }

    private String active(String delivery) {
        sailings.saved();
        String rule = sailings.rule()
                .replace("delivery: { to: [" + sailings.recipient + "] }", "delivery: { " + delivery + " }");
        api.push(rule);
        api.post("/api/rules/" + sailings.name + "/activate", "");
        return rule;
    }

    @Test
    void eachReaderHasItInTheirLanguageTogetherWithTheFile() {
        language(german, "de");
        sailings.late("SK-1", 60);
        active("to: [" + sailings.recipient + ", " + german + "], cc: [cc-" + sailings.recipient + "]");
        assertThat(api.check(sailings.name).path("updates").asInt()).isEqualTo(1);
        mails.sent(german, 1);
        mails.sent(sailings.recipient, 1);
        mails.sent("cc-" + sailings.recipient, 1);
        assertThat(mails.subjects(german)).containsExactly("1 kritisch: Late sailings of " + sailings.name);
        assertThat(mails.lastText(german)).contains("kritisch, neu").doesNotContain("critical");
        assertThat(mails.lastText(sailings.recipient)).contains("critical, new");
        var ofGerman = api.get("/api/outbox?rule=" + sailings.name + "&q=" + german)
                .path("messages")
                .path(0)
                .path("id")
                .asString();
        assertThat(new String(api.bytes("/api/extracts/" + ofGerman + "/files/0"), StandardCharsets.UTF_8))
                .startsWith("\ufeffSchweregrad,Änderung,");
        assertThat(api.check(sailings.name).path("state").asString())
                .as("told once")
                .isEqualTo("QUIET");
        assertThat(api.post("/api/outbox/" + ofGerman + "/report-again", "")
                        .path("count")
                        .asInt())
                .isEqualTo(1);
        api.check(sailings.name);
        mails.sent(german, 2);
        mails.sent(sailings.recipient, 2);
        assertThat(api.send(
                                "PUT",
                                "/api/languages/" + german,
                                "{\"language\":\"xx\"}",
                                Map.of("Content-Type", "application/json"))
                        .text())
                .contains("is none of en, de, nb");
    }

    @Test
    void rowsNameTheirRecipients() {
        String boat = "boat-" + sailings.recipient;
        sailings.late("SK-1", 20).late("SK-2", 20).late("SK-3", 20);
        sailings.change("update sailing_table set reason = '" + boat + "; ' where sailing = 'SK-1'");
        sailings.change("update sailing_table set reason = 'by foot' where sailing = 'SK-2'");
        sailings.exceptions("delay_min > 15");
        active("to: [" + sailings.recipient + "], split_by: sailing, split_address: reason");
        api.check(sailings.name);
        mails.sent(boat, 1);
        assertThat(mails.lastText(boat)).contains("SK-1").doesNotContain("SK-2");
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(sailings.recipient)).contains("SK-2", "SK-3").doesNotContain("SK-1");
        sailings.change("update sailing_table set delay_min = 0 where sailing = 'SK-1'");
        sailings.late("SK-4", 20);
        api.check(sailings.name);
        mails.sent(boat, 2);
        assertThat(mails.lastText(boat)).as("by its last row").contains("cleared", "SK-1");
        assertThat(api.pushAnswer(sailings.rule()
                                .replace("delivery: { to", "delivery: { split_by: sailing, split_address: raeson, to"))
                        .text())
                .contains("there is no column raeson", "\"reason\"");
    }

    @Test
    void aDomainThatLooksMistypedIsPointedOut() {
        sailings.saved();
        api.put("/api/teams/Slips", Map.of("addresses", java.util.List.of("desk@skerryline.example")));
        var slip = api.push(sailings.rule().replace(sailings.recipient, "per.aune@skerrylien.example"));
        assertThat(slip.path("warnings").toString())
                .contains(
                        "nobody here has an address at skerrylien.example, though at skerryline.example",
                        "per.aune@skerryline.example",
                        "delivery.to[0]");
        var other = api.push(sailings.rule().replace(sailings.recipient, "per.aune@elsewhere.example"));
        assertThat(other.path("warnings").toString()).doesNotContain("is it a slip");
    }
}
