package dev.oddsentry.service.explanations;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FORGOTTEN;
import static dev.oddsentry.service.db.generated.Tables.LAST_REPORT;
import static dev.oddsentry.service.db.generated.Tables.RULE;

import dev.oddsentry.core.condition.Verdict;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.RuleEvaluator;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.Marks.Kind;
import dev.oddsentry.core.value.Numbers;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.FindingRecord;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.explanations.Explanation.ExplainedCell;
import dev.oddsentry.service.explanations.Explanation.ExplainedFinding;
import dev.oddsentry.service.explanations.Explanation.ExplainedPart;
import dev.oddsentry.service.explanations.Explanation.ExplainedRow;
import dev.oddsentry.service.handling.FindingHandling;
import dev.oddsentry.service.layouts.Layouts;
import dev.oddsentry.service.layouts.SeverityLook;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.FindingKeys;
import dev.oddsentry.service.memory.FindingKeys.Identity;
import dev.oddsentry.service.memory.FindingNames;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.memory.Scope;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.previews.RowInspector;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Explains one finding: its state in memory, its events, and its row in the source now. */
@Component
public class Explanations {
    private static final DateTimeFormatter SHORT = DateTimeFormatter.ofPattern("EEE d MMM yyyy HH:mm", Locale.ENGLISH);

    private final DSLContext db;
    private final FindingKeys keys;
    private final FindingHandling marking;
    private final Timeline events;
    private final RowInspector looking;
    private final MemoryStore memory;
    private final Layouts layouts;
    private final Clock clock;

    Explanations(
            DSLContext db,
            FindingKeys keys,
            FindingHandling marking,
            Timeline events,
            RowInspector looking,
            MemoryStore memory,
            Layouts layouts,
            Clock clock) {
        this.db = db;
        this.keys = keys;
        this.marking = marking;
        this.events = events;
        this.looking = looking;
        this.memory = memory;
        this.layouts = layouts;
        this.clock = clock;
    }

    public Explanation ofKey(Person by, Current<RuleDefinition> rule, List<String> texts, @Nullable String copy) {
        var identity = keys.read(rule, texts, copy);
        var finding = db.selectFrom(FINDING)
                .where(
                        FINDING.RULE_ID.eq(rule.ruleId()),
                        FINDING.KEY.eq(identity.key().asUuid()))
                .fetchOptional();
        return tell(by, rule, identity, finding.orElse(null));
    }

    public Explanation ofNumber(Person by, Current<RuleDefinition> rule, long number) {
        var finding = db.selectFrom(FINDING)
                .where(FINDING.RULE_ID.eq(rule.ruleId()), FINDING.ID.eq(number))
                .fetchOptional()
                .orElseThrow(() -> RefusedException.notFound("The rule has no finding " + number + "."));
        var identity =
                new Identity(Digest.of(finding.getKey()), Json.cells(finding.getIdentity()), finding.getCopyKey());
        return tell(by, rule, identity, finding);
    }

    /** @param copy whose personal copy; null where the rule has none */
    public Explanation ofDigest(Person by, Current<RuleDefinition> rule, UUID digest, @Nullable String copy) {
        var number = db.select(FINDING.ID)
                .from(FINDING)
                .where(FINDING.RULE_ID.eq(rule.ruleId()), FINDING.KEY.eq(digest))
                .and(FINDING.COPY_KEY.isNotDistinctFrom(copy))
                .fetchOptional(FINDING.ID)
                .orElseThrow(() -> RefusedException.notFound(
                        "The rule does not have this finding, or its check has not ended yet."));
        return ofNumber(by, rule, number);
    }

    private Explanation tell(
            Person by, Current<RuleDefinition> saved, Identity identity, @Nullable FindingRecord finding) {
        var rule = layouts.resolved(saved);
        ZoneId zone = rule.definition().zone();
        var now = finding == null ? null : now(rule, finding);
        var present = present(by, rule, identity);
        return new Explanation(
                rule.definition().name(),
                zone.getId(),
                FindingNames.of(
                        rule.definition(),
                        identity.copy(),
                        identity.cells(),
                        finding == null ? Map.of() : Json.row(finding.getRow())),
                now == null
                        ? neverFound(rule, identity.key(), zone) + presently(present)
                        : why(now, zone, limited(rule, Objects.requireNonNull(finding), now)),
                now,
                present,
                events.of(rule, finding == null ? null : finding.getId()));
    }

    private ExplainedFinding now(Current<RuleDefinition> rule, FindingRecord finding) {
        var reported = db.select(LAST_REPORT.AT, LAST_REPORT.REPORTED_AT)
                .from(LAST_REPORT)
                .where(LAST_REPORT.FINDING_ID.eq(finding.getId()))
                .orderBy(LAST_REPORT.AT.desc())
                .limit(1)
                .fetchOptional();
        return new ExplainedFinding(
                finding.getId(),
                finding.getState(),
                finding.getSeverity(),
                SeverityLook.of(rule.definition(), finding.getSeverity()),
                finding.getOpenedAt(),
                finding.getChangedAt(),
                db.select(RULE.LAST_GOOD_SLOT)
                        .from(RULE)
                        .where(RULE.ID.eq(rule.ruleId()))
                        .fetchOne(RULE.LAST_GOOD_SLOT),
                finding.getNoData(),
                finding.getUnreported(),
                finding.getOpeningAudience() != null
                        ? finding.getOpenedAt()
                        : reported.map(row -> row.value1()).orElse(null),
                finding.getOpeningReported()
                        ? finding.getOpenedAt()
                        : reported.map(row -> row.value2()).orElse(null),
                marking.of(List.of(finding.getId())).getOrDefault(finding.getId(), List.of()));
    }

    private ExplainedRow present(Person by, Current<RuleDefinition> rule, Identity identity) {
        Instant at = clock.instant();
        RowInspector.Seen seen;
        try {
            seen = looking.at(by, rule, identity.copy(), identity.key(), at);
        } catch (RefusedException unreachable) {
            return new ExplainedRow(at, null, null, null, List.of(), List.of(), unreachable.getMessage());
        }
        Optional<RuleEvaluator.Sought> sought = seen.sought();
        if (sought.isEmpty()) return new ExplainedRow(at, null, null, null, List.of(), List.of(), null);
        var cells = new ArrayList<ExplainedCell>();
        for (int i = 0; i < seen.columns().size(); i++) {
            String column = seen.columns().at(i).name();
            Object cell = Numbers.readable(sought.get().cells().get(i));
            var label = seen.labels().column(column);
            String value = cell == null
                    ? null
                    : seen.labels().value(column, cell, rule.definition().zone());
            cells.add(new ExplainedCell(
                    column, label.text(), value == null || label.unit() == null ? value : value + " " + label.unit()));
        }
        return new ExplainedRow(
                at,
                sought.get().verdict(),
                sought.get().severity(),
                SeverityLook.ofNullable(rule.definition(), sought.get().severity()),
                sought.get().parts().stream()
                        .map(part ->
                                new ExplainedPart(part.text(), seen.labels().sentence(part.text()), part.verdict()))
                        .toList(),
                cells,
                null);
    }

    /** Nobody remembers it: it was forgotten, which leaves a trace for a while, or never was. */
    private String neverFound(Current<RuleDefinition> rule, Digest key, ZoneId zone) {
        return db.selectFrom(FORGOTTEN)
                .where(FORGOTTEN.RULE_ID.eq(rule.ruleId()), FORGOTTEN.KEY.eq(key.asUuid()))
                .fetchOptional(trace -> "It opened on " + time(trace.getOpenedAt(), zone)
                        + (trace.getState() == FindingState.CLEARED ? ", cleared on " : ", aged out on ")
                        + time(trace.getChangedAt(), zone) + ", and was forgotten on "
                        + time(trace.getForgottenAt(), zone) + ". ")
                .orElse("No check has found it. ");
    }

    private static String why(ExplainedFinding now, ZoneId zone, @Nullable String limited) {
        return switch (now.state()) {
            case PENDING -> "It is an exception, but has not lasted long enough to be reported (open_after).";
            case OPEN -> "It is open. " + told(now, zone, limited);
            case AGED_OUT ->
                "It left the rule's date window, so it is not known whether it was fixed. " + told(now, zone, limited);
            case CLEARED -> "It has cleared. " + told(now, zone, limited);
        };
    }

    private static String presently(ExplainedRow present) {
        if (present.failure() != null) return "The source cannot be read now: " + present.failure();
        if (present.verdict() == null) return "The row is not in the current result.";
        return switch (present.verdict()) {
            case TRUE -> "It is an exception in the current result, which no check has read yet.";
            case FALSE -> "It is not an exception now: " + parts(present, Verdict.FALSE, "is false") + ".";
            case UNKNOWN -> "It cannot be evaluated now: " + parts(present, Verdict.UNKNOWN, "is unknown") + ".";
        };
    }

    private static String parts(ExplainedRow present, Verdict verdict, String word) {
        String parts = present.parts().stream()
                .filter(part -> part.verdict() == verdict)
                .map(ExplainedPart::text)
                .collect(Collectors.joining(", "));
        return parts.isEmpty() ? "the condition " + word : parts + " " + word;
    }

    private static String told(ExplainedFinding now, ZoneId zone, @Nullable String limited) {
        var silence =
                now.handling().stream().filter(mark -> mark.kind() != Kind.TAKE).findFirst();
        if (silence.isPresent() && now.unreported()) {
            var mark = silence.get();
            return "It has an unreported update, but " + mark.by()
                    + (mark.kind() == Kind.SNOOZE ? " has snoozed it" : " has accepted it")
                    + (mark.until() == null ? "." : " until " + time(mark.until(), zone) + ".");
        }
        if (now.unreported() && limited != null) return limited;
        if (now.unreported())
            return "It has an unreported update, waiting for a check that fires or for confirm_after.";
        if (now.lastReportedAt() != null)
            return "Last reported on " + time(now.lastReportedAt(), zone) + "; no reportable update since.";
        if (now.reportedAt() != null)
            return "Not reported: on " + time(now.reportedAt(), zone)
                    + " it was treated as known, or was of a kind that this rule does not report.";
        return now.state() == FindingState.CLEARED
                ? "It opened and cleared between reports."
                : "Not reported yet: the next check reports it.";
    }

    /** Why its update waits: its severity is not worth a message, or its recipients had as many messages within an hour as they may. */
    private @Nullable String limited(Current<RuleDefinition> rule, FindingRecord finding, ExplainedFinding now) {
        if (!now.unreported() || now.lastConfirmed() == null) return null;
        var from = rule.definition().delivery().options().sendFrom();
        if (from != null && from.isWorseThan(now.severity()))
            return "It waits because it is " + SeverityLook.name(rule.definition(), now.severity())
                    + ", and this rule sends a message only for "
                    + SeverityLook.name(rule.definition(), from) + (from == Severity.CRITICAL ? "" : " or higher")
                    + " (send_from). The next message reports it.";
        int most = rule.definition().delivery().options().hourlyLimit();
        var sent = memory.messagesAfter(
                new Scope(rule.ruleId(), finding.getCopyKey()),
                now.lastConfirmed().minus(Duration.ofHours(1)));
        if (sent.getOrDefault(new AudienceKey(finding.getSplitValue()), 0) < most) return null;
        return "It waits because its recipients were sent " + most
                + " messages within an hour, the max per hour of the rule (max_per_hour). The next message reports it.";
    }

    private static String time(Instant instant, ZoneId zone) {
        String city = zone.getId().substring(zone.getId().lastIndexOf('/') + 1).replace('_', ' ');
        return SHORT.format(instant.atZone(zone))
                + (city.equals("UTC") || city.equals("Z") ? " UTC" : " (" + city + " time)");
    }
}
