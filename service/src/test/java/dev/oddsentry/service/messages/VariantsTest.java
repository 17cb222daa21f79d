package dev.oddsentry.service.messages;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** What some of the recipients of a rule get differently, and whom a message says that it was sent to. */
class VariantsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private final String analyst = sailings.recipient;
    private final String lead = "lead-" + sailings.recipient;
    private final String norwegian = "no-" + sailings.recipient;

    private String rule(String delivery) {
        return sailings.rule().replaceAll("(?s)delivery: \\{.*", "delivery:\n" + delivery.indent(2));
    }

    private String attached(String address) throws MessagingException, IOException {
        var mixed = (Multipart) service.mailTo(address).getLast().getContent();
        return mixed.getContentType().contains("mixed") ? mixed.getBodyPart(1).getFileName() : "";
    }

    @Test
    void eachRecipientGetsTheVariantThatNamesThem() throws MessagingException, IOException {
        sailings.late("SK-1", 20).late("SK-2", 65).active();
        api.put("/api/languages/" + norwegian, Map.of("language", "NB"));
        api.put("/api/teams/" + sailings.name, Map.of("addresses", List.of(lead)));
        api.push(rule("""
                to: [%1$s, "team: %2$s", Nora Vik <%3$s>]
                bcc: [secret-%1$s]
                attach: [csv]
                variants:
                  - { for: [%4$s], subject: "{{critical}} critical for the lead", rows_as: figures, attach: [] }
                  - { for: ["team: %2$s", %3$s], attach: [json], opening: Hei, closing: Ha det }
                """.formatted(analyst, sailings.name, norwegian, lead)));
        api.check(sailings.name);
        mails.sent(analyst, 1);
        mails.sent("secret-" + analyst, 1);
        mails.sent(lead, 1);
        mails.sent(norwegian, 1);
        assertThat(mails.subjects(analyst)).containsExactly("1 critical, 1 warning: Late sailings of " + sailings.name);
        assertThat(mails.lastText(analyst))
                .contains("SK-1", "Sent to: " + analyst + ", " + lead + ", Nora Vik.")
                .doesNotContain("secret");
        assertThat(attached(analyst)).endsWith(".csv");
        assertThat(mails.subjects(lead)).containsExactly("1 critical for the lead");
        assertThat(mails.lastText(lead)).contains("2 new (1 critical)").doesNotContain("SK-1");
        assertThat(attached(lead)).isEmpty();
        assertThat(mails.lastText(norwegian)).containsSubsequence("Hei", "SK-1", "Ha det", "Sendt til: ");
        assertThat(attached(norwegian)).endsWith(".json");
        assertThat(service.countRecords(
                        "select count(*) from finding where rule_id = (select id from definition where kind = 'RULE' and name = '"
                                + sailings.name + "')"))
                .as("one audience, whatever each gets of it")
                .isEqualTo(2);
        api.check(sailings.name);
        assertThat(service.mailTo(lead)).hasSize(1);
    }

    @Test
    void theCopiesGoWithTheMessageOfTheOthersAndOneRecipientAloneIsNotNamed() {
        String copy = "copy-" + analyst;
        sailings.late("SK-1", 20).active();
        api.push(rule("to: [" + analyst + "]\ncc: [" + copy + "]\nvariants: [ { for: [" + analyst
                + "], opening: For you alone } ]"));
        api.check(sailings.name);
        mails.sent(copy, 1);
        assertThat(mails.lastText(copy)).contains("For you alone", "Sent to: " + analyst + ", " + copy);
        api.push(rule("to: [" + analyst + "]"));
        sailings.late("SK-2", 20);
        api.check(sailings.name);
        mails.sent(analyst, 2);
        assertThat(mails.lastText(analyst)).contains("SK-2").doesNotContain("Sent to");
    }

    @Test
    void theMessageDoesNotNameThoseWhoUnsubscribed() {
        String leaver = "leaver-" + analyst;
        sailings.late("SK-1", 20).active();
        api.push(rule("to: [" + analyst + ", " + leaver + "]\nallow_unsubscribe: true"));
        api.check(sailings.name);
        mails.sent(leaver, 1);
        assertThat(mails.lastText(analyst)).contains("Sent to: " + analyst + ", " + leaver + ".");
        service.execute(
                "records",
                "insert into unsubscription (definition_id, address, message_id, unsubscribed_at) select id, '" + leaver
                        + "', gen_random_uuid(), now() from definition where kind = 'RULE' and name = '" + sailings.name
                        + "'");
        sailings.late("SK-2", 20);
        api.check(sailings.name);
        mails.sent(analyst, 2);
        assertThat(mails.lastText(analyst)).doesNotContain("leaver");
    }

    @Test
    void aVariantIsCheckedAtTheSave() {
        sailings.active();
        assertThat(api.pushAnswer(rule("to: [" + analyst + "]\nvariants: [ { for: [" + analyst + "] } ]"))
                        .text())
                .contains("this variant differs in nothing");
        assertThat(api.pushAnswer(rule("to: [" + analyst + "]\nvariants: [ { for: [" + lead + "], attach: [] } ]"))
                        .text())
                .contains(lead + " is not under \\\"to\\\", so nothing is sent there");
        assertThat(api.pushAnswer(rule("to: [" + analyst + "]\nvariants: [ { for: [" + analyst
                                + "], show: link, opening: '{{#rows}}{{sailing}}{{/rows}}' } ]"))
                        .text())
                .contains("its texts cannot quote rows");
        assertThat(api.pushAnswer(rule("to: [" + analyst + "]\nvariants: [ { for: [" + analyst
                                + "], subject: '{{sailings}} late' } ]"))
                        .text())
                .contains("there is no field \\\"sailings\\\"", "delivery.variants[0].subject");
    }

    @Test
    void aVariantWithAllRowsShowsThemToItsRecipientsOnly() throws MessagingException, IOException {
        sailings.late("SK-1", 20).late("SK-9", 1).active();
        api.push(rule("to: [" + analyst + ", " + lead + "]\nattach: [csv]\nvariants: [ { for: [" + lead
                + "], attach: [ { format: csv, rows: all } ] } ]"));
        api.check(sailings.name);
        mails.sent(lead, 1);
        mails.sent(analyst, 1);
        assertThat(csv(lead)).contains("SK-1", "SK-9");
        assertThat(csv(analyst)).contains("SK-1").doesNotContain("SK-9");
    }

    private String csv(String address) throws MessagingException, IOException {
        var mixed = (Multipart) service.mailTo(address).getLast().getContent();
        try (var bytes = mixed.getBodyPart(1).getInputStream()) {
            return new String(bytes.readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        }
    }
}
