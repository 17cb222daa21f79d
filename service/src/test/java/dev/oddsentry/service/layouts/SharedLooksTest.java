package dev.oddsentry.service.layouts;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Words and colours that rules share are seen wherever their severities are. */
class SharedLooksTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);

    @BeforeEach
    void aRuleWithASharedLayoutHasReported() {
        sailings.late("SK-1", 65).late("SK-2", 20).active();
        api.push("""
                kind: layout
                name: %s
                columns: [sailing]
                severities: [ { level: critical, word: far too late, colour: violet } ]
                """.formatted(sailings.name));
        api.push(sailings.rule().replace("delivery: { ", "delivery: { layout: " + sailings.name + ", "));
        api.check(sailings.name);
    }

    private static void isViolet(JsonNode look) {
        assertThat(look.path("word").asString()).isEqualTo("far too late");
        assertThat(look.path("colour").asString()).isEqualTo("VIOLET");
    }

    private JsonNode first(String path, String list) {
        return api.get(path).path(list).path(0);
    }

    @Test
    void listsOfFindingsAndRulesHaveThem() {
        var own = api.get("/api/rules/" + sailings.name + "/findings");
        isViolet(own.path("findings").path(0).path("look"));
        assertThat(own.path("columns")).as("the layout's columns too").hasSize(1);
        var across = first("/api/findings?rule=" + sailings.name, "findings");
        isViolet(across.path("look"));
        assertThat(across.path("cells")).hasSize(1);
        var rule = api.get("/api/rules/" + sailings.name);
        isViolet(rule.path("rule").path("looks").path("CRITICAL"));
        assertThat(rule.path("rule").path("looks").path("WARNING").path("word").isNull())
                .isTrue();
        isViolet(rule.path("text").path("severity").path(0).path("look"));
    }

    @Test
    void messagesExplanationsPreviewsAndStatementsHaveThem() {
        new Mails(service).sent(sailings.recipient, 1);
        assertThat(new Mails(service).subjects(sailings.recipient).getFirst())
                .startsWith("1 far too late, 1 warning: ");
        var message = first("/api/outbox?rule=" + sailings.name, "messages");
        var reported = api.get("/api/outbox/" + message.path("id").asString()).path("reported");
        isViolet(reported.path("findings").path(0).path("look"));
        var explained = api.get("/api/rules/" + sailings.name + "/explanation?key=SK-1");
        isViolet(explained.path("now").path("look"));
        isViolet(explained.path("present").path("look"));
        assertThat(explained.path("events").toString()).contains("opened as far too late");
        var statement = first("/api/statements?rule=" + sailings.name, "statements");
        assertThat(statement.path("sentences").toString()).contains("1 far too late, 1 warning");
    }
}
