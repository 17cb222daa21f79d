package dev.oddsentry.extracts;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.extract.ExtraColumn;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.FileRows;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.RowsAs;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.extracts.csv.CsvExtract;
import dev.oddsentry.extracts.mail.Announcement;
import dev.oddsentry.extracts.mail.HtmlMail;
import dev.oddsentry.extracts.mail.TextMail;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RenderersTest {
    private static final ZoneId OSLO = ZoneId.of("Europe/Oslo");
    private static final List<Extract.Column> COLUMNS = List.of(
            Extract.Column.of("sailing", "Sailing", null, Type.TEXT),
            Extract.Column.of("route", "Route", null, Type.TEXT),
            Extract.Column.of("delay_min", "Late by", "min", Type.NUMBER),
            Extract.Column.of("planned", "Planned", null, Type.INSTANT));
    private static final Instant PLANNED = Instant.parse("2026-11-22T17:05:00Z");

    private static final Instant EARLIER = Instant.parse("2026-11-23T04:40:00Z");
    private static final Announcement.Habit NEWS = new Announcement.Habit(
            Announcement.Tells.UPDATES, false, Set.of(UpdateKind.NEW, UpdateKind.WORSENED), null);

    private static Extract.Row row(Severity severity, Set<UpdateKind> kinds, @Nullable Object... cells) {
        return new Extract.Row(
                severity, kinds, Arrays.stream(cells).map(Extract.Cell::plain).toList());
    }

    private static Extract extract(List<Extract.Column> columns, List<Extract.Row> rows) {
        var list = new Extract.Arrangement(List.of(), ExtraColumn.ALL, "Exceptions", RowsAs.LIST);
        return new Extract(OSLO, Language.EN, columns, list, rows);
    }

    private static Announcement messagePlanner(List<Extract.Row> rows, long open) {
        return saying(rows, open, NEWS, EARLIER);
    }

    private static Announcement saying(
            List<Extract.Row> rows, long open, Announcement.Habit habit, @Nullable Instant since) {
        return new Announcement(
                "Late sailings without a reason",
                null,
                "Traffic reporting",
                OSLO,
                Instant.parse("2026-11-24T04:40:00Z"),
                extract(COLUMNS, rows),
                List.of(),
                List.of(),
                Announcement.MOST_ROWS,
                false,
                Announcement.Own.NONE,
                open,
                0,
                "rows match the condition: late by more than 15 min",
                "Could not be evaluated: 2 rows (Status is missing).",
                habit,
                since,
                Instant.parse("2026-11-25T04:40:00Z"),
                null,
                List.of(),
                Announcement.Files.attached(
                        List.of(new Announcement.Files.Attached("late-sailings-2026-11-24.csv", FileRows.OPEN))),
                List.of(),
                Announcement.Links.to("http://127.0.0.1:8480/rules/late-sailings"));
    }

    private static Extract.Row worse() {
        return new Extract.Row(
                Severity.CRITICAL,
                Set.of(UpdateKind.WORSENED),
                List.of(
                        Extract.Cell.plain("SK-412"),
                        Extract.Cell.plain("Holm – Varsund"),
                        new Extract.Cell(71L, true, 44L),
                        Extract.Cell.plain(PLANNED)));
    }

    @Test
    void theMailSaysKindsSeverityMarksAndWhatItWasBefore() {
        var said = messagePlanner(
                List.of(
                        worse(),
                        row(Severity.WARNING, Set.of(UpdateKind.NEW), "SK-431", "Holm – Gråvik", 28L, PLANNED),
                        row(Severity.WARNING, Set.of(UpdateKind.CLEARED), "SK-077", "Holm – Gråvik", 48L, PLANNED)),
                15);
        assertThat(TextMail.subject(said))
                .isEqualTo("1 critical, 1 warning, 1 cleared: Late sailings without a reason");
        assertThat(TextMail.render(said))
                .contains(
                        "Tuesday 24 November, 05:40 (Oslo time)",
                        "1 new, 1 worsened, 1 cleared (1 critical)",
                        "Changes since Monday 23 November, 05:40. 13 findings reported earlier are still open.",
                        "▲ critical, worsened   SK-412   Holm – Varsund\n    *Late by 71 min* (was 44 min), Planned Sun 22 Nov 18:05",
                        "You get this email because rows match the condition: late by more than 15 min. Could not be evaluated: 2 rows (Status is missing). Each finding is reported once, and again if it worsens.",
                        "Next check: Wednesday 05:40.");
        assertThat(HtmlMail.render(said))
                .contains("border-bottom:2px solid #22303c\">Late by 71 min</span> (was 44 min)")
                .doesNotContain("<style", "<script", "http-equiv");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "NEW                                | -      | Each finding is reported once.",
                "NEW, RETURNED                      | -      | Each finding is reported once, and again if it returns.",
                "NEW, RETURNED, CLEARED, MOVED | -      | again if it returns, when it clears or when it moves to another audience.",
                "NEW, WORSENED, IMPROVED, CHANGED      | -      | again if it worsens, if it improves or if its values change.",
                "NEW                                | 3 days | Each finding is reported once, and again every 3 days while it is open.",
            })
    void thePromiseToTheReaderIsWhatTheRuleReports(String kinds, @Nullable String remindEvery, String words) {
        var reports = Arrays.stream(kinds.split(", ")).map(UpdateKind::valueOf).collect(Collectors.toSet());
        var rows = List.of(row(Severity.WARNING, Set.of(UpdateKind.NEW), "SK-431", "Holm – Gråvik", 28L, PLANNED));
        var said = saying(
                rows, 1, new Announcement.Habit(Announcement.Tells.UPDATES, false, reports, remindEvery), EARLIER);
        assertThat(TextMail.render(said)).contains(words);
        assertThat(HtmlMail.render(said)).contains(words);
        var full = saying(
                rows,
                1,
                new Announcement.Habit(Announcement.Tells.EVERYTHING_OPEN, false, reports, remindEvery),
                EARLIER);
        assertThat(TextMail.render(full)).contains("All open findings are reported each time.");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "NEW        | 1 critical: Late sailings    | 1 new (critical)       | View the open finding",
                "RETURNED   | 1 critical: Late sailings    | 1 returned (critical)      | View the open finding",
                "IMPROVED      | 1 critical: Late sailings    | 1 improved (critical)     | View the open finding",
                "CHANGED    | 1 critical: Late sailings    | 1 changed (critical)   | View the open finding",
                "REMINDER   | 1 critical: Late sailings    | 1 still open (critical) | View the open finding",
                "CLEARED    | 1 cleared: Late sailings     | 1 cleared             | View findings (none open)",
                "MOVED | 1 moved: Late sailings  | 1 moved          | View findings (none open)",
            })
    void whatIsOverForTheReadersIsNoLongerCountedByItsSeverity(
            UpdateKind kind, String subject, String headline, String link) {
        boolean over = kind == UpdateKind.CLEARED || kind == UpdateKind.MOVED;
        var rows = List.of(row(Severity.CRITICAL, Set.of(kind), "SK-431", "Holm – Gråvik", 48L, PLANNED));
        var said = saying(rows, over ? 0 : 1, NEWS, EARLIER);
        assertThat(TextMail.subject(said)).startsWith(subject);
        assertThat(TextMail.render(said)).contains("\n" + headline + "\n", link + ": http");
        assertThat(HtmlMail.render(said)).contains(headline, link);
        assertThat(HtmlMail.render(said).contains("color:#2f7d6b;font-weight"))
                .as("calm")
                .isEqualTo(over);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "-                    | 1 | This is the first report.",
                "-                    | 2 | This is the first report. 1 finding that is already known is still open.",
                "-                    | 4 | This is the first report. 3 findings that are already known are still open.",
                "2026-11-23T04:40:00Z | 1 | Changes since Monday 23 November, 05:40.",
                "2026-11-23T04:40:00Z | 2 | Changes since Monday 23 November, 05:40. 1 finding reported earlier is still open.",
            })
    void whatIsOpenBesidesIsSaidAsTheReadersKnowIt(@Nullable Instant since, long open, String words) {
        var rows = List.of(row(Severity.WARNING, Set.of(UpdateKind.NEW), "SK-431", "Holm – Gråvik", 28L, PLANNED));
        assertThat(TextMail.render(saying(rows, open, NEWS, since)).lines()).contains(words);
    }

    @Test
    void linksLeadToTheFindingTheKeptReportAndOut() {
        var linked = row(Severity.WARNING, Set.of(UpdateKind.NEW), "SK-431", "Holm – Gråvik", 28L, PLANNED)
                .linked("http://odd/rules/late/findings/7?copy=a&b");
        var plain = messagePlanner(List.of(linked), 1);
        var said = new Announcement(
                plain.title(),
                null,
                plain.owner(),
                OSLO,
                plain.slot(),
                plain.news(),
                List.of(),
                List.of(),
                Announcement.MOST_ROWS,
                false,
                Announcement.Own.NONE,
                1,
                0,
                plain.because(),
                "",
                NEWS,
                null,
                null,
                null,
                List.of(),
                new Announcement.Files(List.of(), List.of(), false, List.of("all.csv"), List.of(), List.of("all.xlsx")),
                List.of(),
                new Announcement.Links(
                        "http://odd/rules/late",
                        "http://odd/extracts/1",
                        "http://odd/leave/1/x",
                        "http://odd/your-mail/1/x"));
        assertThat(TextMail.render(said))
                .contains(
                        "\n    http://odd/rules/late/findings/7?copy=a&b\n",
                        "View the open finding: http://odd/rules/late\n",
                        "Too large to attach; download it from the online report: all.csv. Too many rows for a PDF; attached as a workbook: all.xlsx.",
                        "\nView this report online: http://odd/extracts/1\nChange what you get: http://odd/your-mail/1/x\nUnsubscribe: http://odd/leave/1/x\n");
        assertThat(HtmlMail.render(said))
                .contains(
                        "<a href=\"http://odd/rules/late/findings/7?copy=a&amp;b\"",
                        ">View this report online</a> · <a href=\"http://odd/your-mail/1/x\"",
                        ">Change what you get</a> · <a href=\"http://odd/leave/1/x\"");
    }

    @Test
    void numberIsAlwaysShownWithItsLabel() {
        var extract = extract(
                List.of(
                        Extract.Column.of("vessel", "Vessel", null, Type.TEXT),
                        Extract.Column.of("litres_per_mile", "Litres per mile", null, Type.NUMBER)),
                List.of(row(Severity.CRITICAL, Set.of(UpdateKind.NEW), "Tjelden", 52L)));
        var said = new Announcement(
                "Fuel per mile",
                null,
                "Traffic reporting",
                OSLO,
                Instant.parse("2026-11-24T04:40:00Z"),
                extract,
                List.of(),
                List.of(),
                Announcement.MOST_ROWS,
                false,
                Announcement.Own.NONE,
                1,
                0,
                "a vessel matches the condition: litres per mile is more than 44",
                "",
                new Announcement.Habit(
                        Announcement.Tells.UPDATES,
                        false,
                        Set.of(UpdateKind.NEW, UpdateKind.RETURNED, UpdateKind.WORSENED),
                        null),
                null,
                null,
                null,
                List.of(),
                Announcement.Files.NONE,
                List.of(),
                Announcement.Links.to("http://127.0.0.1:8480/rules/fuel-per-mile"));
        assertThat(TextMail.render(said))
                .contains(
                        "▲ critical, new   Tjelden\n    Litres per mile 52",
                        "You get this email because a vessel matches the condition: litres per mile is more than 44. Each finding is reported once, and again if it returns or if it worsens.");
        assertThat(HtmlMail.render(said)).contains("<b>Tjelden</b>", "Litres per mile 52");
    }

    @Test
    void theTextSaysEveryRowThatTheHtmlSays() {
        var rows = new ArrayList<Extract.Row>();
        for (int i = 0; i < 70; i++)
            rows.add(row(
                    Severity.WARNING, Set.of(UpdateKind.NEW), "SK-" + (1000 + i), "Holm – Gråvik", (long) i, PLANNED));
        var said = messagePlanner(rows, 70);
        String html = HtmlMail.render(said);
        String text = TextMail.render(said);
        for (int i = 0; i < 70; i++) {
            assertThat(text.contains("SK-" + (1000 + i)))
                    .isEqualTo(html.contains("SK-" + (1000 + i)))
                    .isEqualTo(i < 50);
        }
        assertThat(text).contains("20 more: see the attachment");
        assertThat(html).contains("20 more: see the attachment");
    }

    @Test
    void textFromDataCannotDrawLinesOrMarkupOfItsOwn() {
        var said = messagePlanner(
                List.of(row(Severity.NOTICE, Set.of(UpdateKind.NEW), "<b>x</b>\r\nBcc: y", "\u202eevil", null, null)),
                1);
        assertThat(HtmlMail.render(said))
                .contains("&lt;b&gt;x&lt;/b&gt; Bcc: y")
                .doesNotContain("<b>x");
        assertThat(TextMail.render(said)).contains("<b>x</b> Bcc: y   evil", "Late by missing");
    }

    @Test
    void csvIsRfc4180WithMarkAndWithoutFormulas() throws IOException {
        var extract = extract(
                List.of(
                        Extract.Column.of("a", "A \"quoted\"", null, Type.TEXT),
                        Extract.Column.of("b", "B", "kr", Type.NUMBER),
                        Extract.Column.of("c", "C", null, Type.DATE)),
                List.of(
                        row(
                                Severity.CRITICAL,
                                Set.of(UpdateKind.RETURNED, UpdateKind.WORSENED),
                                "=SUM(A1)",
                                new BigDecimal("-1.50"),
                                LocalDate.of(2026, 1, 2)),
                        row(Severity.WARNING, Set.of(), "007, \"Å\"\nnext", null, null)));
        var bytes = new ByteArrayOutputStream();
        CsvExtract.write(extract, new CsvExtract.Style(',', '.', StandardCharsets.UTF_8, true), bytes);
        assertThat(bytes.toString(StandardCharsets.UTF_8))
                .isEqualTo("\ufeffSeverity,Update,\"A \"\"quoted\"\"\",B (kr),C\r\n"
                        + "critical,\"returned, worsened\",'=SUM(A1),-1.50,2026-01-02\r\n"
                        + "warning,,\"007, \"\"Å\"\"\nnext\",,\r\n");
    }
}
