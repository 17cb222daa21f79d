package dev.oddsentry.service.layouts;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Links from values to the record in its own system, in messages and files. */
class LinksTest {
    private static final String AT = "https://records.example/sailings/";

    @TempDir
    Path folder;

    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);

    private String query(String link) {
        return sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\" order by sailing")
                .replace("sailing: { label: Sailing }", "sailing: { label: Sailing, link: \"" + link + "\" }");
    }

    private JsonNode message() {
        return api.get("/api/outbox?rule=" + sailings.name).path("messages").path(0);
    }

    private String html() {
        return api.send("GET", "/api/outbox/" + message().path("id").asString() + "/html", null, Map.of())
                .text();
    }

    private byte[] file(int place) {
        return api.bytes("/api/extracts/" + message().path("id").asString() + "/files/" + place);
    }

    private void checked(String delivery) {
        api.push(sailings.rule().replace(sailings.recipient + "] }", sailings.recipient + "], " + delivery + " }"));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
    }

    @Test
    void valueLeadsToItsRecordInMessageAndFiles() throws IOException {
        sailings.late("SK 1/2", 60);
        api.push(query(AT + "{{sailing}}?late={{delay_min}}"));
        checked("attach: [html, json, xlsx]");
        String address = AT + "SK%201%2F2?late=60";
        assertThat(html())
                .contains("<a href=\"" + address + "\"", ">SK 1/2</a>")
                .as("the finding is still a press away")
                .contains("/rules/" + sailings.name + "/findings/");
        assertThat(mails.lastText(sailings.recipient)).contains("\n    Sailing: " + address);
        assertThat(new String(file(0), StandardCharsets.UTF_8)).contains("<a href=\"" + address + "\">SK 1/2</a>");
        assertThat(new String(file(1), StandardCharsets.UTF_8)).contains("\"links\"", address);
        assertThat(entry(file(2), "xl/worksheets/_rels/sheet1.xml.rels")).contains("late=60");
        assertThat(entry(file(2), "xl/worksheets/sheet1.xml")).contains("SK 1/2");
    }

    @Test
    void findingsAndPreviewLeadToTheRecord() {
        sailings.late("SK 1/2", 60);
        api.push(query(AT + "{{sailing}}?late={{delay_min}}"));
        checked("attach: []");
        String address = AT + "SK%201%2F2?late=60";
        var finding = api.get("/api/rules/" + sailings.name + "/findings")
                .path("findings")
                .path(0);
        assertThat(finding.path("links").path("sailing").asString()).isEqualTo(address);
        assertThat(finding.path("links").propertyNames()).containsExactly("sailing");
        var across =
                api.get("/api/findings?rule=" + sailings.name).path("findings").path(0);
        assertThat(across.path("cells").valueStream())
                .filteredOn(cell -> cell.path("label").asString().equals("Sailing"))
                .allMatch(cell -> cell.path("link").asString().equals(address))
                .isNotEmpty();
        var preview = api.post("/api/rules/" + sailings.name + "/preview", Map.of());
        assertThat(preview.path("rows").path(0).path("cells").valueStream())
                .filteredOn(cell -> cell.path("text").asString().equals("SK 1/2"))
                .allMatch(cell -> cell.path("link").asString().equals(address))
                .isNotEmpty();
    }

    private String entry(byte[] workbook, String name) throws IOException {
        Path file = Files.write(folder.resolve("links.xlsx"), workbook);
        try (var zip = new ZipFile(file.toFile());
                var in = zip.getInputStream(zip.getEntry(name))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Test
    void columnThatHoldsNoHarmlessAddressIsNoLink() {
        sailings.late("javascript:alert(1)", 60).late("https://records.example/7", 50);
        api.push(query("{{sailing}}"));
        checked("attach: [], layout: { rows_as: list }");
        assertThat(html())
                .contains("<a href=\"https://records.example/7\"")
                .contains("javascript:alert(1)")
                .doesNotContain("href=\"javascript");
    }

    @Test
    void groupThatLacksTheColumnOfALinkHasNone() {
        sailings.late("SK-1", 60);
        api.push(query(AT + "{{sailing}}/{{delay_min}}"));
        api.push("""
                kind: rule
                name: %s
                owner: Traffic reporting
                query: %s
                per: [sailing]
                measures: { worst: max(delay_min) }
                exceptions: worst > 30
                delivery: { to: [%s] }
                """.formatted(sailings.name, sailings.name, sailings.recipient));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        assertThat(html()).contains("SK-1").doesNotContain(AT);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "javascript:{{sailing}} | is not a link. Examples: https://records.example/",
                "https://records.example/{{sailin}} | the link names a column \\\"sailin\\\"",
            })
    void linkThatLeadsNowhereIsRefused(String link, String words) {
        var refused = api.pushAnswer(query(link));
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains(words);
    }
}
