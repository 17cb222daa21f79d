package dev.oddsentry.core.definition;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.definition.MemoryDefinition.SafetyLimits;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What a rule says of its memory, schedule and checks: read, printed, and compared with what it said before. */
class RuleDocumentTest {
    private static final String RULE = """
            kind: rule
            name: late-sailings
            owner: Traffic reporting
            query: sailings-lately
            zone: Europe/Oslo
            exceptions: delay_min > 15
            memory: { key: [sailing_id], watch: [delay_min], confirm_after: 2 checks, remind_every: 3 days, max_cleared: 30 %, max_opened: 500, forget_after: 90 days }
            schedule: { start: 2026-01-05T05:40, recur: FREQ=DAILY, working_days: [3, -1], also: [2026-05-16T10:00], except: [2026-12-24, 2026-12-31T05:40], calendar: norway, on_holidays: next_working_day, missed: each, events: [timetable-loaded], after: [crew-hours, {rule: bunkering, on: [failed, no_rows]}], ready_when: {query: sailings-loaded, every: 3 minutes, until: 1 hour}, when_empty: fail }
            limits: { time_limit: 10 minutes, retries: 3, retry_after: 2 minutes }
            delivery: { to: [ines.holm@skerryline.example], split_by: terminal, split_to: { Holm: [holm@skerryline.example, siv.tangen@skerryline.example], Vik: vik@skerryline.example }, split_from: terminal-mail, split_address: terminal_mail, allow_unsubscribe: true, thread: month, max_per_hour: 12, escalate: { after: 4 hours, to: [lead@skerryline.example], severity: critical }, also_send: [{ query: sailings-of-the-day, layout: plain, attach: [pdf], rows_in_mail: 5 }, { query: crew, attach: [] }] }
            """;

    private static RuleDefinition read(String text) {
        return (RuleDefinition) Document.read(text).definition();
    }

    @Test
    void whatIsPrintedIsReadAsTheSame() {
        assertThat(read(Document.print(read(RULE)))).isEqualTo(read(RULE));
        var calendar = Document.read("{kind: calendar, name: norway, week: [monday, sunday],"
                        + " holidays: {2026-05-17: Constitution Day}, extra_working_days: [2026-05-16]}")
                .definition();
        assertThat(Document.read(Document.print(calendar)).definition()).isEqualTo(calendar);
    }

    @Test
    void listsThatSayNothingTwiceAreWrittenTwice() {
        String text = "{kind: rule, name: whole, owner: o, query: q, per: [],"
                + " delivery: {attach: [], also_send: [{query: crew, attach: []}], layout: {extra_columns: []}}}";
        assertThat(Document.print(read(text))).contains("per: []", "attach: []").doesNotContain("*id", "&id");
        assertThat(read(Document.print(read(text)))).isEqualTo(read(text));
    }

    @Test
    void calculationThatSendsNothingNeedsNoRowsBesidesTheExceptions() {
        var delivery = read(RULE.replace(
                        "thread: month",
                        "thread: month, attach: [{ format: csv, rows: all }, pdf], layout: { whole_report: true }"))
                .delivery();
        assertThat(delivery.showsWholeReport()).isTrue();
        var lighter = delivery.withoutWholeReport();
        assertThat(lighter.showsWholeReport()).isFalse();
        assertThat(lighter.attachments()).hasSize(1);
        assertThat(lighter.split()).isEqualTo(delivery.split());
        assertThat(lighter.withoutWholeReport()).isSameAs(lighter);
    }

    @ParameterizedTest
    @CsvSource({
        "name: late-sailings,          name: later,                     NO_EFFECT",
        "confirm_after: 2 checks,              confirm_after: 3 checks,                 NO_EFFECT",
        "recur: FREQ=DAILY,            recur: FREQ=WEEKLY,              NO_EFFECT",
        "watch: [delay_min],           watch: [status],                 OTHER_WATCHED_COLUMNS",
        "exceptions: delay_min > 15,   exceptions: delay_min > 20,      OTHER_CONDITIONS",
        "zone: Europe/Oslo,            zone: UTC,                       OTHER_CONDITIONS",
        "query: sailings-lately,       query: sailings,                 OTHER_CONDITIONS",
        "split_from: terminal-mail,    split_from: others,              NO_EFFECT",
        "split_by: terminal,           split_by: route,                 OTHER_AUDIENCES",
        "key: [sailing_id],            key: [sailing],                  OTHER_KEY_COLUMNS",
    })
    void anEditIsPutIntoOneClass(String before, String after, EditClass expected) {
        assertThat(EditClass.of(read(RULE), read(RULE.replace(before, after)))).isEqualTo(expected);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "confirm_after: 2 hours",
                "remind_every: 3 checks",
                "max_cleared: 120 %",
                "max_opened: none",
                "working_days: [0]",
                "except: [tomorrow]",
                "retries: 99",
                "time_limit: 3 checks",
                "when_empty: sometimes",
                "events: [Timetable loaded]",
                "after: [{on: [fired]}]",
                "on: [stopped]",
                "every: often",
                "split_from: Terminal mail",
                "Vik: nobody",
                "forget_after: 3 checks"
            })
    void whatMakesNoSenseIsRefused(String field) {
        String name = field.substring(0, field.indexOf(':'));
        String text = RULE.replaceFirst(name + ": (\\[[^\\]]*\\]|[^,}]*)", field + " ");
        assertThat(text).as("the field is there").contains(field);
        assertThatThrownBy(() -> read(text)).isInstanceOf(InvalidDefinitionException.class);
    }

    @ParameterizedTest
    @CsvSource({
        "50, , 40,  20, 0,   false",
        "50, , 40,  21, 0,   true",
        "50, , 19,  19, 0,   false",
        "50, , 100, 19, 0,   false",
        "  , , 40,  40, 999, false",
        "  , 9, 40, 0,  9,   false",
        "  , 9, 40, 0,  10,  true",
    })
    void checkBeyondASafetyLimitAwaitsApproval(
            @Nullable Integer percent, @Nullable Integer most, long open, long cleared, long opened, boolean kept) {
        assertThat(new SafetyLimits(percent, most)
                        .exceededBy(open, cleared, opened)
                        .isPresent())
                .isEqualTo(kept);
    }

    @ParameterizedTest
    @ValueSource(strings = {"copies:", "delivery: { escalate: }", "schedule: { ready_when: }"})
    void partWithoutAnythingIsNotThere(String part) {
        String rule = "kind: rule\nname: late\nowner: Traffic reporting\nquery: sailings\nper: [route]\n";
        assertThat(Document.read(rule + part + "\n").definition())
                .isEqualTo(Document.read(rule).definition());
    }
}
