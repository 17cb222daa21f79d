package dev.oddsentry.service.explanations;

import static dev.oddsentry.service.db.generated.Tables.CHECK_COPY;
import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.REPORT;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;
import static org.jooq.impl.DSL.any;
import static org.jooq.impl.DSL.coalesce;
import static org.jooq.impl.DSL.exists;
import static org.jooq.impl.DSL.lower;
import static org.jooq.impl.DSL.max;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.selectOne;
import static org.jooq.impl.DSL.val;

import dev.oddsentry.core.definition.DeliveryDefinition;
import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.memory.FindingEventKind;
import dev.oddsentry.service.memory.FindingNames;
import dev.oddsentry.service.outbox.RecipientState;
import dev.oddsentry.service.recipients.Directory;
import dev.oddsentry.service.rules.CheckState;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What one recipient got from one rule on one day, and why other open findings were not included. */
@Component
public class ReportedOnDay {
    private static final Set<FindingEventKind> OPENINGS = EnumSet.of(
            FindingEventKind.OPENED,
            FindingEventKind.OPENED_AGAIN,
            FindingEventKind.BACK_IN_WINDOW,
            FindingEventKind.BACK_BEFORE_CONFIRMED);
    private static final Set<FindingEventKind> MOVES = EnumSet.of(
            FindingEventKind.CLEARED,
            FindingEventKind.AGED_OUT,
            FindingEventKind.PENDING,
            FindingEventKind.PENDING_AGAIN,
            FindingEventKind.FORGOTTEN_WHILE_PENDING);

    static {
        MOVES.addAll(OPENINGS);
    }

    private static final int MOST_NAMED = 50;

    private static final Field<String[]> LOWER_ADDRESSES =
            DSL.field("lower({0}::text)::text[]", String[].class, CHECK_COPY.ADDRESSES);

    private final DSLContext db;
    private final Directory directory;

    ReportedOnDay(DSLContext db, Directory directory) {
        this.db = db;
        this.directory = directory;
    }

    /**
     * @param recipient whether the rule mails that address at present
     * @param notReported findings that were open then and in no message of that day, by the reason
     */
    public record ReportedDay(
            String rule,
            String zone,
            String to,
            LocalDate on,
            boolean recipient,
            List<CheckOfDay> checks,
            List<MessageOfDay> messages,
            List<UnreportedReason> notReported) {}

    record CheckOfDay(
            Instant slot, CheckState state, @Nullable String reason) {}

    record MessageOfDay(
            MessageId message,
            Instant slot,
            String subject,
            RecipientState state,
            @Nullable String detail,
            List<ReportedFinding> findings) {}

    record ReportedFinding(String identity, List<String> as) {}

    /** @param identities the first of them */
    record UnreportedReason(String reason, long count, List<String> identities) {}

    public ReportedDay of(Current<RuleDefinition> rule, String to, LocalDate on) {
        ZoneId zone = rule.definition().zone();
        Instant from = on.atStartOfDay(zone).toInstant();
        Instant until = on.plusDays(1).atStartOfDay(zone).toInstant();
        var checks = db.select(RULE_CHECK.SLOT, RULE_CHECK.STATE, RULE_CHECK.REASON)
                .from(RULE_CHECK)
                .where(RULE_CHECK.RULE_ID.eq(rule.ruleId()), RULE_CHECK.SLOT.ge(from), RULE_CHECK.SLOT.lt(until))
                .orderBy(RULE_CHECK.SLOT)
                .fetch(row -> new CheckOfDay(row.value1(), row.value2(), row.value3()));
        var messages = messages(rule, to, from, until);
        var copies = copiesFor(rule.ruleId(), to);
        boolean recipient = !messages.isEmpty()
                || !copies.isEmpty()
                || isNamed(rule.definition().delivery(), to);
        return new ReportedDay(
                rule.definition().name(),
                zone.getId(),
                to,
                on,
                recipient,
                checks,
                messages,
                notTold(rule, copies, from, until, zone));
    }

    /** Also through a team, a person or a list. */
    private boolean isNamed(DeliveryDefinition delivery, String to) {
        return directory.written(List.copyOf(delivery.named())).stream()
                .anyMatch(each -> MailAddress.bare(each).equalsIgnoreCase(to));
    }

    /** The keys of the personal copies that were ever made for that address. */
    private Set<String> copiesFor(RuleId ruleId, String to) {
        return db.selectDistinct(CHECK_COPY.COPY_KEY)
                .from(CHECK_COPY)
                .join(RULE_CHECK)
                .on(RULE_CHECK.ID.eq(CHECK_COPY.CHECK_ID))
                .where(
                        RULE_CHECK.RULE_ID.eq(ruleId),
                        val(to.toLowerCase(Locale.ROOT)).eq(any(LOWER_ADDRESSES)))
                .fetchSet(CHECK_COPY.COPY_KEY);
    }

    private List<MessageOfDay> messages(Current<RuleDefinition> rule, String to, Instant from, Instant until) {
        return db.select(MESSAGE.ID, MESSAGE.SLOT, MESSAGE.SUBJECT, MESSAGE_RECIPIENT.STATE, MESSAGE_RECIPIENT.RESPONSE)
                .from(MESSAGE)
                .join(MESSAGE_RECIPIENT)
                .on(MESSAGE_RECIPIENT.MESSAGE_ID.eq(MESSAGE.ID))
                .where(
                        MESSAGE.RULE_ID.eq(rule.ruleId()).or(tellsOf(rule.ruleId())),
                        MESSAGE.SLOT.ge(from),
                        MESSAGE.SLOT.lt(until),
                        lower(MESSAGE_RECIPIENT.ADDRESS).eq(to.toLowerCase(Locale.ROOT)))
                .orderBy(MESSAGE.SLOT)
                .fetch(row -> new MessageOfDay(
                        row.value1(),
                        row.value2(),
                        row.value3(),
                        row.value4(),
                        row.value5(),
                        told(row.value1(), rule)));
    }

    /** {@code true} for a round-up with unreported updates of the rule. */
    private static Condition tellsOf(RuleId rule) {
        return MESSAGE.ROUND_UP_ID
                .isNotNull()
                .and(exists(selectOne()
                        .from(REPORT)
                        .join(FINDING)
                        .on(FINDING.ID.eq(REPORT.FINDING_ID))
                        .where(REPORT.MESSAGE_ID.eq(MESSAGE.ID), FINDING.RULE_ID.eq(rule))));
    }

    private List<ReportedFinding> told(MessageId message, Current<RuleDefinition> rule) {
        return db.select(FINDING.IDENTITY, FINDING.ROW, REPORT.KINDS, FINDING.COPY_KEY)
                .from(REPORT)
                .join(FINDING)
                .on(FINDING.ID.eq(REPORT.FINDING_ID))
                .where(REPORT.MESSAGE_ID.eq(message), FINDING.RULE_ID.eq(rule.ruleId()))
                .orderBy(FINDING.ID)
                .limit(MOST_NAMED)
                .fetch(row -> new ReportedFinding(
                        FindingNames.of(
                                rule.definition(), row.value4(), Json.cells(row.value1()), Json.row(row.value2())),
                        List.of(row.value3())));
    }

    /** Findings that were open that day, and the last thing that was done about telling them before the day ended. */
    private List<UnreportedReason> notTold(
            Current<RuleDefinition> rule, Set<String> copies, Instant from, Instant until, ZoneId zone) {
        var lastMove = select(max(FINDING_EVENT.ID))
                .from(FINDING_EVENT)
                .where(
                        FINDING_EVENT.FINDING_ID.eq(FINDING.ID),
                        FINDING_EVENT.KIND.in(MOVES),
                        FINDING_EVENT.SLOT.lt(until));
        var states = FINDING_EVENT.as("states");
        var open = db.select(FINDING.ID, FINDING.IDENTITY, FINDING.ROW, FINDING.COPY_KEY)
                .from(FINDING)
                .join(states)
                .on(states.ID.eq(lastMove))
                .where(
                        FINDING.RULE_ID.eq(rule.ruleId()),
                        FINDING.COPY_KEY.isNull().or(FINDING.COPY_KEY.in(copies)),
                        states.KIND.in(OPENINGS))
                .orderBy(FINDING.ID)
                .fetch();
        var told = coalesce(FINDING_EVENT.AT_OPENING, FINDING_EVENT.KIND);
        var lastReported = db.select(FINDING_EVENT.FINDING_ID, told, FINDING_EVENT.SLOT)
                .distinctOn(FINDING_EVENT.FINDING_ID)
                .from(FINDING_EVENT)
                .where(
                        FINDING_EVENT.FINDING_ID.in(
                                select(FINDING.ID).from(FINDING).where(FINDING.RULE_ID.eq(rule.ruleId()))),
                        FINDING_EVENT.SLOT.lt(until),
                        told.in(FindingEventKind.REPORTED, FindingEventKind.TREATED_AS_KNOWN))
                .orderBy(FINDING_EVENT.FINDING_ID, FINDING_EVENT.ID.desc())
                .fetchMap(FINDING_EVENT.FINDING_ID, row -> row);
        Map<String, List<String>> byReason = new LinkedHashMap<>();
        for (var finding : open) {
            var last = lastReported.get(finding.value1());
            if (last != null
                    && last.value2() == FindingEventKind.REPORTED
                    && !last.value3().isBefore(from)) continue;
            String reason = last == null
                    ? "not reported by that day: no check fired for it, or it was snoozed or accepted"
                    : last.value2() == FindingEventKind.REPORTED
                            ? "reported earlier, on "
                                    + last.value3().atZone(zone).toLocalDate()
                            : "not reported on "
                                    + last.value3().atZone(zone).toLocalDate()
                                    + ": treated as known, or a kind this rule does not report";
            byReason.computeIfAbsent(reason, _ -> new ArrayList<>())
                    .add(FindingNames.of(
                            rule.definition(),
                            finding.value4(),
                            Json.cells(finding.value2()),
                            Json.row(finding.value3())));
        }
        return byReason.entrySet().stream()
                .map(each -> new UnreportedReason(
                        each.getKey(),
                        each.getValue().size(),
                        List.copyOf(each.getValue()
                                .subList(0, Math.min(MOST_NAMED, each.getValue().size())))))
                .toList();
    }
}
