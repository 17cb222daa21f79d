package dev.oddsentry.extracts.mail;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.SeverityLooks;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.value.Type;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

class RoundUpMailTest {
    private static final ZoneId OSLO = ZoneId.of("Europe/Oslo");
    private static final Instant SLOT = Instant.parse("2026-11-24T06:00:00Z");
    private static final List<Extract.Column> COLUMNS = List.of(
            Extract.Column.of("sailing", "Sailing", null, Type.TEXT),
            Extract.Column.of("delay_min", "Late by", "min", Type.NUMBER));

    private static Extract.Row row(Severity severity, UpdateKind kind, @Nullable Object... cells) {
        return new Extract.Row(
                severity,
                Set.of(kind),
                Arrays.stream(cells).map(Extract.Cell::plain).toList());
    }

    private static RoundUp.Section section(String title, Language language, Extract.Row... rows) {
        return new RoundUp.Section(
                title,
                new Extract(OSLO, language, COLUMNS, Extract.Arrangement.USUAL, List.of(rows)),
                List.of(),
                7,
                "rows match the condition: late by more than 15 min",
                "http://127.0.0.1:8480/rules/late?a=1&b=2");
    }

    private static RoundUp roundUp(
            Language language, @Nullable Instant since, boolean atOnce, List<RoundUp.Section> sections) {
        return new RoundUp(
                "Morning round-up",
                "Traffic reporting",
                OSLO,
                language,
                SLOT,
                since,
                atOnce,
                sections,
                List.of(),
                List.of("Fuel per mile", "Certificates"),
                Instant.parse("2026-11-25T06:00:00Z"),
                new RoundUp.Links("http://127.0.0.1:8480/findings", null, null));
    }

    private static RoundUp usual(Language language) {
        return roundUp(
                language,
                SLOT.minusSeconds(86_400),
                false,
                List.of(
                        section(
                                "Late sailings",
                                language,
                                row(Severity.CRITICAL, UpdateKind.NEW, "SK-412", 71L),
                                row(Severity.WARNING, UpdateKind.CLEARED, "SK-7", 4L)),
                        section("Gate uploads", language, row(Severity.WARNING, UpdateKind.NEW, "G1", 3L))));
    }

    @Test
    void namesRulesWithAndWithoutUpdates() {
        assertThat(RoundUpMail.subject(usual(Language.EN)))
                .isEqualTo("1 critical, 1 warning, 1 cleared: Morning round-up");
        assertThat(RoundUpMail.text(usual(Language.EN)).lines())
                .startsWith(
                        "Morning round-up",
                        "Tuesday 24 November, 07:00 (Oslo time)",
                        "",
                        "2 new, 1 cleared (1 critical)",
                        "From 2 rules since the round-up of Monday 23 November, 07:00.",
                        "",
                        "== Late sailings: 1 new, 1 cleared (1 critical) ==")
                .contains(
                        "View all 7 open findings: http://127.0.0.1:8480/rules/late?a=1&b=2",
                        "Reported because rows match the condition: late by more than 15 min.",
                        "Nothing new in: Fuel per mile, Certificates.",
                        "Next round-up: Wednesday 25 November, 07:00. Owner: Traffic reporting.");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "EN | true  | From one rule. This is the first round-up.",
                "EN | false | From one rule since the round-up of Monday 23 November, 07:00.",
            })
    void aFirstRoundUpHasNothingBeforeIt(Language language, boolean first, String context) {
        var said = roundUp(
                language,
                first ? null : SLOT.minusSeconds(86_400),
                false,
                List.of(section("Late", language, row(Severity.NOTICE, UpdateKind.NEW, "SK-1", 1L))));
        assertThat(RoundUpMail.text(said)).contains(context);
        assertThat(RoundUpMail.html(said)).contains(context);
    }

    @Test
    void whatCannotWaitSaysThatItWasSentImmediately() {
        var said = roundUp(
                Language.EN,
                null,
                true,
                List.of(section("Late", Language.EN, row(Severity.CRITICAL, UpdateKind.NEW, "SK-1", 99L))));
        assertThat(RoundUpMail.subject(said)).isEqualTo("1 critical: Morning round-up (sent immediately)");
        assertThat(RoundUpMail.text(said)).contains("Sent immediately because of its severity.");
    }

    @Test
    void rowsBeyondTheLimitAreCountedInHeadlineAndSubject() {
        var shown = section("Late", Language.EN, row(Severity.CRITICAL, UpdateKind.NEW, "SK-1", 99L));
        var more = List.of(row(Severity.WARNING, UpdateKind.NEW), row(Severity.WARNING, UpdateKind.NEW));
        var section = new RoundUp.Section(shown.title(), shown.news(), more, 3, shown.because(), shown.link());
        var said = roundUp(Language.EN, null, false, List.of(section));
        assertThat(RoundUpMail.subject(said)).startsWith("1 critical, 2 warnings: ");
        assertThat(RoundUpMail.text(said)).contains("3 new (1 critical)", "2 more: see the link");
        assertThat(RoundUpMail.html(said)).contains("2 more: see the link");
    }

    @ParameterizedTest
    @EnumSource(Language.class)
    void htmlAndTextSayTheSameInEveryLanguage(Language language) {
        var said = usual(language);
        String html = RoundUpMail.html(said).replace("&amp;", "&");
        assertThat(html).contains("lang=\"" + language.code() + "\"");
        for (String line : RoundUpMail.text(said).lines().toList()) {
            if (line.isBlank() || line.startsWith("  ") || line.contains("http") || line.startsWith("==")) continue;
            boolean isRow = line.contains("SK-") || line.contains("G1");
            if (!isRow && !line.equals(said.title()))
                assertThat(html).as(language.code()).contains(line);
        }
        assertThat(html).contains("SK-412", "71 min", "SK-7", "G1");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"<img src=x onerror=alert(1)>", "\"><script>", "a & b", "{0} {1}", "\u202Eevil", "line\r\nBcc: x"
            })
    void textOfPeopleAndDataIsNeitherMarkupNorALineOfItsOwn(String nasty) {
        var section = new RoundUp.Section(
                nasty,
                section("x", Language.EN, row(Severity.WARNING, UpdateKind.NEW, nasty, 1L))
                        .news(),
                List.of(),
                1,
                nasty,
                "http://127.0.0.1:8480/");
        var said = new RoundUp(
                nasty,
                nasty,
                OSLO,
                Language.EN,
                SLOT,
                null,
                false,
                List.of(section),
                List.of(statement(nasty)),
                List.of(nasty),
                null,
                new RoundUp.Links("http://127.0.0.1:8480/", null, null));
        assertThat(RoundUpMail.html(said)).doesNotContain("<img", "<script", "\u202E");
        assertThat(RoundUpMail.subject(said)).doesNotContain("\r", "\n", "\u202E");
        assertThat(RoundUpMail.text(said).lines()).noneMatch(line -> line.startsWith("Bcc"));
    }

    private static CheckStatement statement(String title, CheckStatement.Gap... gaps) {
        return new CheckStatement(
                title,
                OSLO,
                SLOT.minusSeconds(7 * 86_400),
                SLOT,
                false,
                new CheckStatement.Checks(7, 2, gaps.length, 0, 120L, 743L, 0, 0),
                new CheckStatement.Reported(20L, 3, 0, 0),
                new CheckStatement.Unreported(3, 0, 2, 0, 1, 0),
                new CheckStatement.Open(
                        Map.of(Severity.CRITICAL, 2L, Severity.WARNING, 18L), SeverityLooks.USUAL, 3, 1),
                List.of(gaps));
    }

    private static RoundUp stated(Language language, CheckStatement... statements) {
        return new RoundUp(
                "The month",
                "Traffic reporting",
                OSLO,
                language,
                SLOT,
                null,
                false,
                List.of(),
                List.of(statements),
                List.of(),
                null,
                new RoundUp.Links("http://127.0.0.1:8480/findings", null, null));
    }

    @Test
    void statementSaysFirstWhetherSilenceCanBeTrusted() {
        var said = stated(Language.EN, statement("Late sailings"));
        assertThat(RoundUpMail.subject(said)).isEqualTo("Nothing to report, all checks complete: The month");
        assertThat(RoundUpMail.text(said)).contains("""
                Late sailings
                  Every check was complete, so silence meant that there was nothing to report.
                  Checked 7 times. The checks read 120 to 743 rows each.
                  2 scheduled times had no check of their own; later checks covered them.
                  20 updates were reported in 3 messages.
                  Updates not reported: 3 snoozed, 2 less severe than the rule sends.
                  One exception has not lasted long enough to be reported.
                  Open now: 2 critical, 18 warnings; of these 3 snoozed, 1 accepted.
                """);
    }

    @Test
    void statementNamesTheTimesOfWhichNoCheckCanSayAnything() {
        var gap = new CheckStatement.Gap(SLOT.minusSeconds(3 * 86_400), SLOT.minusSeconds(86_400));
        var said = stated(Language.EN, statement("Late sailings", gap), statement("Certificates"));
        assertThat(RoundUpMail.subject(said)).isEqualTo("Checks incomplete: The month");
        assertThat(RoundUpMail.html(said)).contains("One rule was not checked completely");
        assertThat(RoundUpMail.text(said))
                .contains("Between Saturday 21 November, 07:00 and Monday 23 November, 07:00, silence does not mean"
                        + " that there was nothing to report.")
                .contains("One check failed.");
    }

    @ParameterizedTest
    @CsvSource({"DE, Prüfnachweis", "NB, Kontrolloversikt"})
    void statementIsSaidInTheLanguageOfTheRoundUp(Language language, String title) {
        var updates = usual(language);
        var both = new RoundUp(
                updates.title(),
                updates.owner(),
                updates.zone(),
                language,
                SLOT,
                null,
                false,
                updates.sections(),
                List.of(statement("Late sailings", new CheckStatement.Gap(SLOT, null))),
                List.of(),
                null,
                updates.links());
        assertThat(RoundUpMail.text(both)).contains("== " + title + " ==").doesNotContain("silence", "Checked", "open");
    }
}
