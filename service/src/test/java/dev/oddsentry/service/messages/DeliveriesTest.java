package dev.oddsentry.service.messages;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.internet.InternetAddress;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** How a rule's mail looks, what goes with it and who gets it, as its document says. */
class DeliveriesTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);

    private String rule(String delivery) {
        return sailings.rule().replaceAll("(?s)delivery: \\{.*", "delivery:\n" + delivery.indent(2));
    }

    private void active(String delivery) {
        sailings.active();
        api.push(rule("to: [" + sailings.recipient + "]\n" + delivery));
        api.check(sailings.name);
    }

    private static List<String> attached(Message message) throws MessagingException, IOException {
        var names = new ArrayList<String>();
        var mixed = (Multipart) message.getContent();
        for (int i = 1; i < mixed.getCount(); i++)
            names.add(mixed.getBodyPart(i).getFileName());
        return names;
    }

    @Test
    void layoutFilesLanguageAndTexts() throws MessagingException, IOException {
        sailings.late("SK-1", 20).late("SK-2", 65);
        active("""
                layout:
                  columns: [ sailing, { column: delay_min, label: Forsinket, format: "0.0", total: sum } ]
                  sort: [delay_min]
                attach: [xlsx, { format: csv, file: "late-{{date}}", delimiter: ";" }, json, pdf, html]
                language: nb
                subject: "{{updates}} forsinkelser, {{critical}} kritiske"
                opening: |
                  Hei <alle>,
                  {{#rows}}{{sailing}} {{/rows}}
                closing: "Spør & svar: {{updates}} <b>"
                """);
        mails.sent(sailings.recipient, 1);
        var message = service.mailTo(sailings.recipient).getFirst();
        assertThat(message.getSubject()).isEqualTo("2 forsinkelser, 1 kritiske");
        assertThat(mails.lastText(sailings.recipient))
                .contains("2 nye (1 kritisk)", "Hei <alle>,", "SK-1 SK-2", "SK-1   *20,0 min*", "sum 85,0 min")
                .contains(
                        "Dette er den første rapporten.",
                        "Du får denne e-posten på grunn av vilkåret: late by er over 15 min og reason mangler.")
                .containsSubsequence("SK-1   *20,0 min*", "Spør & svar: 2 <b>", "Du får denne e-posten")
                .containsSubsequence("advarsel", "kritisk");
        assertThat(attached(message)).hasSize(5).anyMatch(name -> name.matches("late-\\d{4}-\\d\\d-\\d\\d\\.csv"));
        var id = api.get("/api/outbox?rule=" + sailings.name)
                .path("messages")
                .path(0)
                .path("id")
                .asString();
        var html = api.send("GET", "/api/outbox/" + id + "/html", "", Map.of());
        assertThat(html.response().body()).contains("Hei &lt;alle&gt;,", "Spør &amp; svar: 2 &lt;b&gt;", "lang=\"nb\"");
        var page = api.get("/api/outbox/" + id);
        assertThat(page.path("files").findValuesAsString("name")).isEqualTo(attached(message));
        assertThat(page.path("reported").path("total").asInt()).isEqualTo(2);
        assertThat(page.path("reported").path("findings").findValuesAsString("severity"))
                .containsExactly("CRITICAL", "WARNING");
        assertThat(page.path("reported")
                        .path("findings")
                        .path(0)
                        .path("updates")
                        .path(0)
                        .asString())
                .isEqualTo("new");
    }

    @Test
    void everyoneWhoIsNamedGetsItAndBccIsNamedNowhere() throws MessagingException {
        String secret = "secret-" + sailings.recipient;
        String copy = "copy-" + sailings.recipient;
        api.put("/api/teams/" + sailings.name, Map.of("addresses", List.of("team-" + sailings.recipient)));
        sailings.late("SK-1", 20);
        active("cc: [Siv Tangen <" + copy + ">, \"team: " + sailings.name + "\"]\nbcc: [" + secret
                + "]\nreply_to: [answers@skerryline.example]\n");
        mails.sent(sailings.recipient, 1);
        mails.sent(secret, 1);
        mails.sent(copy, 1);
        mails.sent("team-" + sailings.recipient, 1);
        var message = service.mailTo(sailings.recipient).getFirst();
        assertThat(Arrays.toString(message.getAllRecipients()))
                .contains("Siv Tangen", copy)
                .doesNotContain(secret);
        assertThat(Arrays.toString(message.getReplyTo())).isEqualTo("[answers@skerryline.example]");
    }

    @Test
    void mailIsFromWhomTheRuleSaysAsFarAsTheOperatorAllows() throws MessagingException {
        sailings.late("SK-1", 20);
        active("sender: Traffic reporting, Måkehamn");
        mails.sent(sailings.recipient, 1);
        var from =
                (InternetAddress) service.mailTo(sailings.recipient).getFirst().getFrom()[0];
        assertThat(from.getPersonal()).isEqualTo("Traffic reporting, Måkehamn");
        assertThat(api.pushAnswer(rule("to: [a@skerryline.example]\nsender: The harbour <harbour@elsewhere.example>"))
                        .text())
                .contains("harbour@elsewhere.example is not an allowed sender; allowed: " + from.getAddress());
    }

    @Test
    void aMailThatOnlyLeadsToTheRowsHasNone() {
        sailings.late("SK-1", 20);
        active("show: link\nattach: [csv]");
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(sailings.recipient))
                .contains("To see the rows, open the link below and log in.", "/rules/" + sailings.name, "1 new")
                .doesNotContain("SK-1");
        assertThat(api.pushAnswer(rule(
                                "to: [a@skerryline.example]\nshow: link\nopening: \"{{#rows}}{{sailing}}{{/rows}}\""))
                        .text())
                .contains("its texts cannot quote rows");
        api.push("kind: round-up\nname: " + sailings.name + "\nowner: Traffic reporting\nrules: [" + sailings.name
                + "]\nto: [lead-" + sailings.recipient
                + "]\nschedule: { start: 2026-01-01T08:00, recur: FREQ=YEARLY }\n");
        sailings.late("SK-2", 20);
        api.check(sailings.name);
        assertThat(api.get("/api/round-ups/" + sailings.name + "/preview")
                        .path("text")
                        .asString())
                .contains("1 new", "1 more: see the link")
                .doesNotContain("SK-2");
        String id = api.get("/api/outbox?rule=" + sailings.name)
                .path("messages")
                .path(0)
                .path("id")
                .asString();
        assertThat(new String(api.bytes("/api/outbox/" + id + "/source"), StandardCharsets.UTF_8))
                .doesNotContain("Content-Disposition: attachment");
        assertThat(api.get("/api/outbox/" + id).path("files").findValuesAsString("name"))
                .as("behind the link")
                .hasSize(2);
    }

    @Test
    void allQuietIsSaidWithoutFiring() {
        active("send_when_quiet: true");
        assertThat(api.get("/api/rules/" + sailings.name + "/checks")
                        .path("checks")
                        .path(0)
                        .path("reason")
                        .asString(""))
                .isEmpty();
        mails.sent(sailings.recipient, 1);
        assertThat(mails.subjects(sailings.recipient).getFirst()).startsWith("nothing new: ");
        assertThat(api.get("/api/rules/" + sailings.name + "/checks")
                        .path("checks")
                        .path(0)
                        .path("state")
                        .asString())
                .isEqualTo("QUIET");
    }

    @Test
    void encryptedFilesNeedAPasswordThatIsKept() {
        sailings.late("SK-1", 20);
        sailings.active();
        api.push(rule("to: [" + sailings.recipient + "]\npack: encrypted"));
        assertThat(api.check(sailings.name).path("reason").asString())
                .contains("odd set-file-password " + sailings.name);
        api.post("/api/rules/" + sailings.name + "/pause", "");
        assertThat(api.postAnswer("/api/rules/" + sailings.name + "/activate", "")
                        .text())
                .contains("but has no password");
        assertThat(api.send(
                                "PUT",
                                "/api/rules/" + sailings.name + "/password",
                                "{\"password\":\"short\"}",
                                Map.of("Content-Type", "application/json"))
                        .status())
                .isEqualTo(422);
        api.send(
                "PUT",
                "/api/rules/" + sailings.name + "/password",
                "{\"password\":\"correct horse\"}",
                Map.of("Content-Type", "application/json"));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(sailings.recipient)).contains(".zip. Open it with the password");
        assertThat(api.get("/api/definitions/rule/" + sailings.name + ".json").toString())
                .doesNotContain("horse");
    }

    @Test
    void aSharedLayoutIsCheckedWithItsRules() {
        String shared = "kind: layout\nname: list-" + sailings.name
                + "\ncolumns: [sailing, { column: delay_min, label: Delay }]\nfixed: true\n";
        api.push(shared);
        sailings.late("SK-1", 20);
        active("layout: list-" + sailings.name + "\nattach: [csv]");
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(sailings.recipient))
                .contains("SK-1   *20 min*")
                .doesNotContain("Reason");
        assertThat(api.pushAnswer(shared.replace("delay_min", "vanished")).text())
                .contains("the rule " + sailings.name + " uses this layout", "vanished");
        assertThat(api.pushAnswer(rule("to: [a@skerryline.example]\nlayout: nowhere"))
                        .text())
                .contains("there is no layout");
    }

    @Test
    void whatCannotBeDoneIsSaidAtTheSave() {
        sailings.active();
        assertThat(api.pushAnswer(rule("""
                                to: [ "Siv <siv@skerryline.example>; no address", "team: Nobody's" ]
                                layout: { columns: [ { column: delay_min, format: "0#" }, { column: sailing, format: EEEEEEEE } ] }
                                attach: [ docx, { format: csv, encoding: klingon } ]
                                subject: "{{updates}} {{nwes}}"
                                opening: "{{{updates}}}"
                                """)).text())
                .contains(
                        "no address\\\" is not a mail address",
                        "use xlsx, csv, pdf, html, json",
                        "not an encoding",
                        "0#\\\" is not a format",
                        "EEEEEEEE\\\" is not a format",
                        "{{{");
        assertThat(api.pushAnswer(rule("""
                                to: [ "team: Nobody's" ]
                                layout: { columns: [ { column: sailing, format: "0.0" } ], sort: [reason], group_by: [nothing] }
                                subject: "{{updates}} {{nwes}}"
                                """)).text())
                .contains("which is not written as 0.0", "\\\"reason\\\" is not among the columns", "unknown column");
        assertThat(api.pushAnswer(rule("to: [ \"team: Nobody's\" ]\nsubject: \"{{nwes}}\""))
                        .text())
                .contains("there is no field \\\"nwes\\\"", "there is no team \\\"Nobody's\\\"");
    }

    @Test
    void theValueThatIsMeasuredIsDrawnAndSaidInWords() throws Exception {
        sailings.late("SK-1", 5).saved();
        api.push(
                rule("to: [" + sailings.recipient + "]\nchart: late\nattach: []")
                        .replaceAll("(?m)^(severity|memory|exceptions):.*\n", "")
                        .replace(
                                "zone: Europe/Oslo\n",
                                "zone: Europe/Oslo\nper: [sailing]\nmeasures: { late: { value: max(delay_min), label: Late by, unit: min } }\n"
                                        + "exceptions: late > 15\nschedule: { start: 2026-01-01T00:00, recur: FREQ=SECONDLY }\n"));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        RunningService.await(
                "points",
                () -> api.get("/api/rules/" + sailings.name + "/measurements")
                                .path(0)
                                .path("points")
                                .size()
                        > 2);
        sailings.change("update sailing_table set delay_min = 60");
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(sailings.recipient))
                .containsPattern(
                        "Late by over \\d+ checks\\. SK-1: from 5 min to 60 min, lowest 5 min, highest 60 min\\.");
        String id = api.get("/api/outbox?rule=" + sailings.name)
                .path("messages")
                .path(0)
                .path("id")
                .asString();
        assertThat(api.send("GET", "/api/outbox/" + id + "/html", null, Map.of())
                        .text())
                .contains("<img src=\"data:image/png;base64,", "alt=\"Late by over ");
        String source = api.send("GET", "/api/outbox/" + id + "/source", null, Map.of())
                .text()
                // Lines that are folded by the encoding.
                .replaceAll("=\r\n", "");
        assertThat(source).contains("Content-ID: <chart>", "multipart/related", "src=3D\"cid:chart\"");
        assertThat(api.pushAnswer(rule("to: [a@skerryline.example]\nchart: late"))
                        .text())
                .contains("the rule has no measure \\\"late\\\"; it measures nothing");
    }

    @Test
    void aPrivateLayoutIsForItsOwnersExtractsAlone() {
        String login = "p" + sailings.recipient.substring(5, 13);
        api.post(
                "/api/people",
                Map.of(
                        "login",
                        login,
                        "name",
                        "P",
                        "email",
                        login + "@skerryline.example",
                        "password",
                        "a long password",
                        "role",
                        "ANALYST"));
        var theirs = HttpApi.loggedIn(service.baseUrl(), login, "a long password");
        sailings.late("SK-1", 60);
        active("attach: [csv]");
        String mine = "mine-" + login;
        String document = "kind: layout\nname: " + mine + "\nprivate_to: " + login
                + "\ncolumns: [delay_min]\nextra_columns: []\n";
        theirs.push(document);
        assertThat(new String(
                        theirs.bytes("/api/rules/" + sailings.name + "/extract.csv?layout=" + mine),
                        StandardCharsets.UTF_8))
                .isEqualTo("\ufeffLate by (min)\r\n60\r\n");
        assertThat(api.send("GET", "/api/rules/" + sailings.name + "/extract.csv?layout=" + mine, null, Map.of())
                        .status())
                .isEqualTo(404);
        assertThat(theirs.pushAnswer(document.replace("private_to: " + login, "private_to: operator")
                                .replace(mine, "x" + mine))
                        .status())
                .isEqualTo(403);
        assertThat(theirs.pushAnswer(rule("to: [a@skerryline.example]\nlayout: " + mine))
                        .text())
                .contains("is private; a rule needs one that is everybody's");
        String other = "q" + login;
        api.post(
                "/api/people",
                Map.of(
                        "login",
                        other,
                        "name",
                        "Q",
                        "email",
                        other + "@skerryline.example",
                        "password",
                        "a long password",
                        "role",
                        "ANALYST"));
        var others = HttpApi.loggedIn(service.baseUrl(), other, "a long password");
        assertThat(others.send("GET", "/api/definitions/layout/" + mine, null, Map.of())
                        .status())
                .isEqualTo(404);
        assertThat(others.send("GET", "/api/definitions/layout/" + mine + "/revisions", null, Map.of())
                        .status())
                .isEqualTo(404);
        assertThat(others.pushAnswer(document.replace("private_to: " + login + "\n", ""))
                        .text())
                .contains("is taken");
    }
}
