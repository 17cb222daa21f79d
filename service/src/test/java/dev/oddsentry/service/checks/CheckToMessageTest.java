package dev.oddsentry.service.checks;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.mail.MessageParts;
import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** From a saved query to a mail that says only what is new, through the API, PostgreSQL and SMTP. */
class CheckToMessageTest {
    private final RunningService service = RunningService.get();
    private final LateSailings sailings = new LateSailings(service);

    private String stateOf(String rule) {
        return service.api().check(rule).path("state").asString();
    }

    private MessageParts mail(int number) throws MessagingException, IOException {
        RunningService.await(
                "mail " + number, () -> service.mailTo(sailings.recipient).size() > number);
        return parts(service.mailTo(sailings.recipient).get(number));
    }

    private static MessageParts parts(MimeMessage message) throws MessagingException, IOException {
        var bytes = new ByteArrayOutputStream();
        message.writeTo(bytes);
        return MessageParts.of(bytes.toByteArray());
    }

    @Test
    void aMailSaysOnlyWhatIsNewWorseBackAndCleared() throws Exception {
        sailings.late("SK-1", 20).late("SK-2", 30).late("SK-3", 5).active();
        assertThat(stateOf(sailings.name)).isEqualTo("FIRED");
        assertThat(mail(0).text()).contains("2 new", "SK-1", "SK-2").doesNotContain("SK-3");
        assertThat(stateOf(sailings.name)).as("nothing new").isEqualTo("QUIET");

        sailings.late("SK-4", 16);
        sailings.change("update sailing_table set delay_min = 50 where sailing = 'SK-1'");
        sailings.change("delete from sailing_table where sailing = 'SK-2'");
        assertThat(stateOf(sailings.name)).isEqualTo("FIRED");
        var second = mail(1);
        assertThat(second.text()).contains("1 new, 1 worsened, 1 cleared (1 critical)", "*50 min* (was 20 min)");
        assertThat(second.html()).contains("SK-4", "cleared").contains("(was 20)");
        assertThat(second.attachments())
                .singleElement()
                .asString()
                .startsWith(sailings.name)
                .endsWith(".csv");

        sailings.late("SK-2", 31);
        assertThat(stateOf(sailings.name)).isEqualTo("FIRED");
        assertThat(mail(2).text()).contains("1 returned", "SK-2").doesNotContain("SK-4");
        assertThat(service.mailTo(sailings.recipient)).hasSize(3);
    }

    @Test
    void textFromDataIsEscapedAndNeverAFormula() throws Exception {
        sailings.late("<img src=x onerror=alert(1)>\n=1+1", 20).active();
        service.api().check(sailings.name);
        var mail = mail(0);
        assertThat(mail.html()).contains("&lt;img src=x").doesNotContain("<img");
        assertThat(mail.text()).contains("<img src=x onerror=alert(1)> =1+1");
        var other = new LateSailings(service).late("=cmd()", 20).active();
        service.api().check(other.name);
        RunningService.await("mail", () -> service.mailTo(other.recipient).size() == 1);
        var bytes = new ByteArrayOutputStream();
        service.mailTo(other.recipient).getFirst().writeTo(bytes);
        assertThat(bytes.toString(StandardCharsets.UTF_8))
                .as("quoted-printable")
                .contains("'=3Dcmd()")
                .doesNotContain(",=3Dcmd()");
    }

    @Test
    void messageIdIsFixedAndTheMailSaysItIsAutomatic() throws Exception {
        sailings.late("SK-1", 20).active();
        service.api().check(sailings.name);
        mail(0);
        MimeMessage received = service.mailTo(sailings.recipient).getFirst();
        var stored = service.api()
                .get("/api/outbox?rule=" + sailings.name)
                .path("messages")
                .path(0);
        var page = service.api().get("/api/outbox/" + stored.path("id").asString());
        assertThat(received.getMessageID()).isEqualTo(page.path("messageId").asString());
        assertThat(received.getHeader("Auto-Submitted")).containsExactly("auto-generated");
        assertThat(received.getSubject()).isEqualTo("1 warning: Late sailings of " + sailings.name);
        RunningService.await(
                "sent",
                () -> service.api()
                        .get("/api/outbox?rule=" + sailings.name)
                        .path("messages")
                        .path(0)
                        .path("recipients")
                        .path(0)
                        .path("state")
                        .asString()
                        .equals("SENT"));
    }

    @Test
    void previewSaysWhatACheckWouldAndLeavesNoTrace() {
        sailings.late("SK-1", 20).late("SK-2", 60).active();
        var seen = service.api().post("/api/rules/" + sailings.name + "/preview", "");
        assertThat(seen.path("wouldReport").asInt()).isEqualTo(2);
        assertThat(seen.path("bySeverity").path("CRITICAL").asInt()).isEqualTo(1);
        assertThat(seen.path("rows")
                        .path(0)
                        .path("cells")
                        .path(1)
                        .path("highlighted")
                        .asBoolean())
                .isTrue();
        assertThat(service.api()
                        .get("/api/rules/" + sailings.name + "/findings")
                        .path("total")
                        .asInt())
                .isZero();
        assertThat(service.api().get("/api/rules/" + sailings.name + "/checks").path("checks"))
                .isEmpty();
        assertThat(service.api().check(sailings.name).path("updates").asInt()).isEqualTo(2);
    }

    @Test
    void whatAMovingWindowLeavesBehindIsOutOfSightAndNotCalledCleared() throws Exception {
        sailings.memory("memory: { key: [sailing], report: [new, cleared], absence: ages_out }")
                .late("SK-1", 20)
                .active();
        service.api().check(sailings.name);
        sailings.change("delete from sailing_table");
        assertThat(stateOf(sailings.name)).isEqualTo("QUIET");
        var finding = service.api()
                .get("/api/rules/" + sailings.name + "/findings")
                .path("findings")
                .path(0);
        assertThat(finding.path("state").asString()).isEqualTo("AGED_OUT");
    }

    @Test
    void theFirstCheckCanTakeWhatIsThereAsKnown() {
        sailings.memory("memory: { key: [sailing], first_check: treat_as_known }")
                .late("SK-1", 20)
                .active();
        assertThat(stateOf(sailings.name)).isEqualTo("QUIET");
        sailings.late("SK-2", 20);
        var check = service.api().check(sailings.name);
        assertThat(check.path("state").asString()).isEqualTo("FIRED");
        assertThat(check.path("updates").asInt()).isEqualTo(1);
    }

    @Test
    void fullModeSaysEverythingEachTimeItFires() throws Exception {
        sailings.memory("memory: { mode: full, key: [sailing] }")
                .late("SK-1", 20)
                .active();
        assertThat(stateOf(sailings.name)).isEqualTo("FIRED");
        sailings.late("SK-2", 20);
        assertThat(stateOf(sailings.name)).isEqualTo("FIRED");
        assertThat(mail(1).text()).contains("1 new, 1 still open", "SK-1", "SK-2");
        sailings.change("delete from sailing_table");
        assertThat(stateOf(sailings.name)).isEqualTo("QUIET");
    }

    @Test
    void unknownRowsAreCountedByPartAndColumn() throws MessagingException, IOException {
        sailings.late("SK-1", 20).active();
        sailings.change("insert into sailing_table values ('SK-2', null, null)");
        var check = service.api().check(sailings.name);
        assertThat(check.path("unknownRows").asInt()).isEqualTo(1);
        assertThat(check.path("parts").path(0).path("unknown").path("delay_min").asInt())
                .isEqualTo(1);
        assertThat(mail(0).text()).contains("Could not be evaluated: 1 row (Late by is missing).");
    }

    @Test
    void aRenameKeepsTheMemory() {
        sailings.late("SK-1", 20).active();
        service.api().check(sailings.name);
        var page = service.api().send("GET", "/api/definitions/rule/" + sailings.name, null, Map.of());
        String renamed = page.text().replace("name: " + sailings.name, "name: renamed-" + sailings.name);
        assertThat(service.api().push(renamed).path("revision").asInt()).isEqualTo(2);
        assertThat(stateOf("renamed-" + sailings.name)).isEqualTo("QUIET");
    }

    @Test
    void savingTheSameDocumentMakesNoRevision() {
        sailings.active();
        assertThat(service.api().push(sailings.rule()).path("changed").asBoolean())
                .isFalse();
        assertThat(service.api()
                        .push(sailings.rule().replace("> 15", "> 16"))
                        .path("revision")
                        .asInt())
                .isEqualTo(2);
    }

    @Test
    void manyNewFindingsFitOneMailAndAllAreInTheAttachment() throws Exception {
        sailings.active();
        sailings.change(
                "insert into sailing_table select 'SK-' || i, 20 + i % 40, null from generate_series(1, 900) i");
        assertThat(service.api().check(sailings.name).path("updates").asInt()).isEqualTo(900);
        var mail = mail(0);
        assertThat(mail.text()).contains("850 more: see the attachment");
        assertThat(mail.html().length()).isLessThan(100_000);
        assertThat(List.of(stateOf(sailings.name), stateOf(sailings.name))).containsOnly("QUIET");
    }
}
