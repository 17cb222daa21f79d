package dev.oddsentry.service.explanations;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What people say of findings, what an edit owes, and why something was or was not told. */
class HandlingAndExplanationsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final String path = "/api/rules/" + sailings.name;

    private JsonNode mark(String sailing, String kind, @Nullable String until) {
        return api.post(path + "/handling", body(sailing, kind, until));
    }

    private static Map<String, Object> body(String sailing, String kind, @Nullable String until) {
        var body = new HashMap<String, Object>(
                Map.of("key", List.of(sailing), "kind", kind, "note", "the tide", "withdraw", false));
        if (until != null) body.put("until", until);
        return body;
    }

    private int updates() {
        return api.check(sailings.name).path("updates").asInt();
    }

    private JsonNode story(String sailing) {
        return api.get(path + "/explanation?key=" + sailing);
    }

    private List<String> words(JsonNode story) {
        return story.path("events")
                .valueStream()
                .map(event -> event.path("text").asString(""))
                .toList();
    }

    @Test
    void snoozedFindingIsReportedAfterItsEndAsItIsThen() {
        sailings.late("SK-1", 20).active();
        assertThat(updates()).isEqualTo(1);
        mark(
                "SK-1",
                "SNOOZE",
                Instant.now()
                        .plus(1, ChronoUnit.DAYS)
                        .truncatedTo(ChronoUnit.SECONDS)
                        .toString());
        sailings.change("update sailing_table set delay_min = 60");
        assertThat(updates()).as("snoozed, though worse").isZero();
        assertThat(story("SK-1").path("reason").asString()).contains("unreported update", "snoozed");
        api.post(path + "/handling", withdrawn("SK-1", "SNOOZE"));
        assertThat(updates()).as("what differs at its end").isEqualTo(1);
        assertThat(words(story("SK-1")))
                .anyMatch(words -> words.startsWith("reported as worsened, changed in"))
                .contains("snoozed by Operator: the tide", "no longer snoozed by Operator");
    }

    private Map<String, Object> noted(String text) {
        return Map.of("key", List.of("SK-1"), "note", text);
    }

    @Test
    void notesStandInTheTimelineAndMoveNothing() {
        sailings.late("SK-1", 20).active();
        assertThat(updates()).isEqualTo(1);
        api.post(path + "/handling/notes", noted("  Rang Måkehamn: <b>fog</b>.  "));
        assertThat(updates()).isZero();
        sailings.change("delete from sailing_table");
        updates();
        api.post(path + "/handling/notes", noted("The log was amended."));
        assertThat(words(story("SK-1")))
                .containsSubsequence(
                        "note by Operator: Rang Måkehamn: <b>fog</b>.",
                        "cleared (rule revision 1)",
                        "note by Operator: The log was amended.");
        assertThat(story("SK-1").path("now").path("handling")).isEmpty();
        assertThat(api.postAnswer(path + "/handling/notes", noted("   ")).text())
                .contains("The note is empty.");
        assertThat(api.postAnswer(path + "/handling/notes", Map.of("key", List.of("SK-9"), "note", "x"))
                        .text())
                .contains("The rule has no finding");
    }

    private static Map<String, Object> withdrawn(String sailing, String kind) {
        var body = new HashMap<>(body(sailing, kind, null));
        body.put("withdraw", true);
        return body;
    }

    @Test
    void worsenedFindingIsReportedAndNoLongerTaken() {
        sailings.late("SK-1", 20).active();
        updates();
        assertThat(mark("SK-1", "TAKE", null)
                        .path("handling")
                        .path(0)
                        .path("by")
                        .asString())
                .isEqualTo("Operator");
        sailings.change("update sailing_table set delay_min = 60");
        assertThat(updates()).isEqualTo(1);
        assertThat(story("SK-1").path("now").path("handling")).isEmpty();
        assertThat(words(story("SK-1"))).contains("no longer taken, because it worsened or cleared (rule revision 1)");
    }

    @Test
    void acceptedFindingClearsSilentlyAndIsReportedWhenItReturns() {
        sailings.late("SK-1", 20).active();
        updates();
        assertThat(api.postAnswer(
                                path + "/handling", Map.of("key", List.of("SK-1"), "kind", "ACCEPT", "withdraw", false))
                        .status())
                .as("accepting needs a reason")
                .isEqualTo(422);
        mark("SK-1", "ACCEPT", null);
        sailings.change("update sailing_table set reason = 'fog'");
        assertThat(updates()).isZero();
        sailings.change("update sailing_table set reason = null");
        assertThat(updates()).isEqualTo(1);
    }

    @Test
    void anEditThatFindsOthersTellsThemOrTakesThemAsKnownAndEndsTheRestWithoutAWord() {
        sailings.late("SK-1", 20).late("SK-2", 12).active();
        assertThat(updates()).isEqualTo(1);
        String edited = sailings.rule().replace("delay_min > 15", "delay_min between 10 and 14");
        assertThat(api.push(edited, "?treatAsKnown=true").path("effect").asString())
                .isEqualTo("OTHER_CONDITIONS");
        assertThat(updates()).as("SK-1 ended, SK-2 known").isZero();
        assertThat(story("SK-1").path("now").path("state").asString()).isEqualTo("CLEARED");
        assertThat(api.push(sailings.rule()).path("effect").asString()).isEqualTo("OTHER_CONDITIONS");
        assertThat(updates()).as("SK-1 returned").isEqualTo(1);
        assertThat(words(story("SK-2"))).noneMatch(words -> words.startsWith("reported"));
        assertThat(service.mailTo(sailings.recipient).size()).isLessThanOrEqualTo(2);
    }

    @Test
    void otherKeyColumnsStartOver() {
        sailings.late("SK-1", 20).active();
        updates();
        String edited = sailings.rule().replace("key: [sailing]", "key: [sailing, delay_min]");
        assertThat(api.push(edited, "?treatAsKnown=true").path("effect").asString())
                .isEqualTo("OTHER_KEY_COLUMNS");
        assertThat(updates()).isZero();
        var findings = api.get(path + "/findings");
        assertThat(findings.path("findings")
                        .valueStream()
                        .map(finding -> finding.path("state").asString("")))
                .containsExactlyInAnyOrder("OPEN", "CLEARED");
        sailings.late("SK-2", 30);
        assertThat(updates()).isEqualTo(1);
    }

    @Test
    void madeActiveAgainItTellsEverythingOnlyWhatIsNewOrNothing() {
        sailings.late("SK-1", 20).active();
        updates();
        for (var told : Map.of("OPEN", 2, "NEW", 1, "NOTHING", 0).entrySet()) {
            api.post(path + "/pause", "");
            sailings.late("SK-" + told.getKey(), 20);
            api.post(path + "/activate?report=" + told.getKey(), "");
            int open = api.get(path + "/findings?state=OPEN").path("total").asInt();
            assertThat(updates())
                    .as(told.getKey())
                    .isEqualTo(told.getKey().equals("OPEN") ? open + 1 : told.getValue());
            assertThat(updates()).isZero();
        }
    }

    @Test
    void lastReportChoiceCountsAndForgetsNoEdit() {
        sailings.late("SK-1", 20).late("SK-2", 40).active();
        updates();
        api.post(path + "/pause", "");
        api.post(path + "/activate?report=OPEN", "");
        api.post(path + "/pause", "");
        api.post(path + "/activate?report=NEW", "");
        assertThat(updates()).as("of two choices the last").isZero();
        api.push(sailings.exceptions("delay_min > 30").rule(), "?treatAsKnown=true");
        api.post(path + "/pause", "");
        api.post(path + "/activate?report=OPEN", "");
        assertThat(updates()).as("what the edit ended clears silently").isEqualTo(1);
    }

    @Test
    void theStoryOfARowThatNeverWasAnExceptionSaysWhichPartDoesNotHold() {
        sailings.late("SK-1", 5).active();
        updates();
        var story = story("SK-1");
        assertThat(story.path("now").isNull()).isTrue();
        assertThat(story.path("present").path("verdict").asString()).isEqualTo("FALSE");
        assertThat(story.path("present").path("parts").path(0).path("sentence").asString())
                .startsWith("late by");
        assertThat(story.path("present").path("cells").toString()).contains("\"label\":\"Late by\"");
        assertThat(story.path("reason").asString())
                .isEqualTo("No check has found it. It is not an exception now: delay_min > 15 is false.");
        assertThat(story("SK-9").path("reason").asString()).endsWith("The row is not in the current result.");
        assertThat(words(story)).anyMatch(words -> words.startsWith("rule " + sailings.name + " saved as revision 1"));
        assertThat(api.send("GET", path + "/explanation?key=a&key=b", null, Map.of())
                        .text())
                .contains("The key is sailing: give 1 value, not 2.");
    }

    @Test
    void findingsAndEventsAreHadAsCsvAndJson() {
        sailings.late("=SK-1", 20).late("SK-2, \"fog\"", 20).active();
        updates();
        mark("SK-2, \"fog\"", "TAKE", null);
        String csv = api.send("GET", path + "/findings.csv", null, Map.of()).text();
        assertThat(csv).startsWith("\ufefffinding,identity,state,severity,opened at,");
        assertThat(csv.lines()).hasSize(3);
        assertThat(csv).contains(",'=SK-1,open,warning,", ",\"SK-2, \"\"fog\"\"\",open,warning,");
        var json = api.get(path + "/findings.json");
        assertThat(json).hasSize(2);
        assertThat(json.path(0).path("row: delay_min").asString()).isEqualTo("20");
        var events = api.get(path + "/events.json");
        assertThat(events.valueStream().map(event -> event.path("event").asString("")))
                .containsExactlyInAnyOrder("opened", "opened", "reported as new", "reported as new", "taken");
        assertThat(api.send("GET", path + "/events.csv", null, Map.of()).text().lines())
                .hasSize(6);
    }

    @Test
    void explainsWhatAPersonGotOnADay() {
        sailings.memory("memory: { key: [sailing], first_check: treat_as_known }")
                .late("SK-1", 20)
                .active();
        updates();
        sailings.late("SK-2", 50);
        updates();
        String today = LocalDate.now(ZoneId.of("Europe/Oslo")).toString();
        var day = api.get(path + "/reported?to=" + sailings.recipient + "&on=" + today);
        assertThat(day.path("checks")).hasSize(2);
        assertThat(day.path("messages")).hasSize(1);
        var told = day.path("messages").path(0).path("findings");
        assertThat(told).hasSize(1);
        assertThat(told.path(0).path("identity").asString()).isEqualTo("SK-2");
        assertThat(told.path(0).path("as").path(0).asString()).isEqualTo("new");
        assertThat(day.path("notReported").path(0).path("identities").path(0).asString())
                .isEqualTo("SK-1");
        assertThat(day.path("notReported").path(0).path("reason").asString()).contains("treated as known");
        assertThat(api.get(path + "/reported?to=nobody@skerryline.example&on=" + today)
                        .path("recipient")
                        .asBoolean())
                .isFalse();
    }
}
