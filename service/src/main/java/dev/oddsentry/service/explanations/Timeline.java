package dev.oddsentry.service.explanations;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.DEFINITION_REVISION;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;
import static dev.oddsentry.service.db.generated.Tables.THRESHOLD_VALUE;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.explanations.Explanation.About;
import dev.oddsentry.service.explanations.Explanation.ExplanationEvent;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.layouts.SeverityLook;
import dev.oddsentry.service.memory.FindingEventKind;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What happened to a finding, and to the rule and its thresholds meanwhile, on one time line. */
@Component
class Timeline {
    private final DSLContext db;

    Timeline(DSLContext db) {
        this.db = db;
    }

    /** @param finding null where no check ever found it: then the time line has what was done to the rule alone */
    List<ExplanationEvent> of(Current<RuleDefinition> rule, @Nullable Long finding) {
        var events = new ArrayList<ExplanationEvent>();
        if (finding != null) events.addAll(ofFinding(rule.definition(), finding));
        events.addAll(edits(Set.of(rule.definition().name()), "rule", Set.of(rule.id())));
        events.addAll(edits(
                Set.of(rule.definition().query()),
                "query",
                idsOfQuery(rule.definition().query())));
        events.addAll(thresholds(rule.definition().thresholdsUsed()));
        events.sort(Comparator.comparing(ExplanationEvent::at));
        return events;
    }

    private Set<UUID> idsOfQuery(String name) {
        return db.select(DEFINITION.ID)
                .from(DEFINITION)
                .where(
                        DEFINITION.KIND.eq(dev.oddsentry.core.definition.Definition.Kind.QUERY),
                        DEFINITION.NAME.eq(name))
                .fetchSet(DEFINITION.ID);
    }

    private List<ExplanationEvent> ofFinding(RuleDefinition rule, long finding) {
        var rows = db.select(
                        FINDING_EVENT.SLOT,
                        FINDING_EVENT.AT,
                        FINDING_EVENT.KIND,
                        FINDING_EVENT.AT_OPENING,
                        FINDING_EVENT.UPDATES,
                        FINDING_EVENT.SEVERITY,
                        FINDING_EVENT.NOTE,
                        FINDING_EVENT.CHECK_ID,
                        FINDING_EVENT.MESSAGE_ID,
                        PERSON.NAME,
                        MESSAGE.SUBJECT,
                        RULE_CHECK.RULE_REVISION)
                .from(FINDING_EVENT)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(FINDING_EVENT.PERSON_ID))
                .leftJoin(MESSAGE)
                .on(MESSAGE.ID.eq(FINDING_EVENT.MESSAGE_ID))
                .leftJoin(RULE_CHECK)
                .on(RULE_CHECK.ID.eq(FINDING_EVENT.CHECK_ID))
                .where(FINDING_EVENT.FINDING_ID.eq(finding))
                .orderBy(FINDING_EVENT.ID)
                .fetch();
        var recipients = recipients(rows.getValues(FINDING_EVENT.MESSAGE_ID));
        var events = new ArrayList<ExplanationEvent>();
        for (var row : rows) {
            var atOpening = row.get(FINDING_EVENT.AT_OPENING);
            // The opening and its report are in one row.
            if (atOpening != null) events.add(event(rule, row, row.get(FINDING_EVENT.KIND), null, recipients));
            var kind = atOpening == null ? row.get(FINDING_EVENT.KIND) : atOpening;
            events.add(event(rule, row, kind, row.get(FINDING_EVENT.MESSAGE_ID), recipients));
        }
        return events;
    }

    private static ExplanationEvent event(
            RuleDefinition rule,
            Record row,
            FindingEventKind kind,
            @Nullable MessageId message,
            Map<MessageId, String> recipients) {
        String who = row.get(PERSON.NAME);
        About about = message != null ? About.MESSAGE : who != null ? About.HANDLING : About.FINDING;
        String words = switch (about) {
            case MESSAGE ->
                EventWords.inMessage(kind, row.get(FINDING_EVENT.UPDATES)) + " in \"" + row.get(MESSAGE.SUBJECT)
                        + "\", " + recipients.getOrDefault(message, "to nobody");
            case HANDLING -> EventWords.brief(kind, null) + " by " + who + note(row.get(FINDING_EVENT.NOTE));
            default ->
                EventWords.full(kind, SeverityLook.name(rule, row.get(FINDING_EVENT.SEVERITY)))
                        + revision(kind, row.get(RULE_CHECK.RULE_REVISION));
        };
        Instant slot = row.get(FINDING_EVENT.SLOT);
        return new ExplanationEvent(
                slot == null ? row.get(FINDING_EVENT.AT) : slot,
                about,
                words,
                row.get(FINDING_EVENT.CHECK_ID),
                message);
    }

    private static String note(@Nullable String note) {
        return note == null ? "" : ": " + note;
    }

    private static String revision(FindingEventKind kind, @Nullable Integer revision) {
        boolean evaluated = kind != FindingEventKind.TREATED_AS_KNOWN && revision != null;
        return evaluated ? " (rule revision " + revision + ")" : "";
    }

    private Map<MessageId, String> recipients(List<MessageId> messages) {
        return db
                .select(MESSAGE_RECIPIENT.MESSAGE_ID, MESSAGE_RECIPIENT.ADDRESS, MESSAGE_RECIPIENT.STATE)
                .from(MESSAGE_RECIPIENT)
                .where(MESSAGE_RECIPIENT.MESSAGE_ID.in(
                        messages.stream().filter(id -> id != null).toList()))
                .orderBy(MESSAGE_RECIPIENT.ADDRESS)
                .fetchGroups(
                        MESSAGE_RECIPIENT.MESSAGE_ID,
                        row -> row.value2() + " ("
                                + row.value3().name().toLowerCase(Locale.ROOT).replace('_', ' ') + ")")
                .entrySet()
                .stream()
                .collect(Collectors.toMap(Map.Entry::getKey, each -> "to " + String.join(", ", each.getValue())));
    }

    private List<ExplanationEvent> edits(Set<String> names, String kind, Set<UUID> ids) {
        return db.select(DEFINITION_REVISION.REVISION, DEFINITION_REVISION.REASON, DEFINITION_REVISION.AT, PERSON.NAME)
                .from(DEFINITION_REVISION)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(DEFINITION_REVISION.AUTHOR_ID))
                .where(DEFINITION_REVISION.DEFINITION_ID.in(ids))
                .fetch(row -> new ExplanationEvent(
                        row.value3(),
                        About.EDIT,
                        kind + " " + String.join(", ", names) + " saved as revision " + row.value1()
                                + (row.value4() == null ? "" : " by " + row.value4())
                                + (row.value2().isBlank() ? "" : ": " + row.value2()),
                        null,
                        null));
    }

    private List<ExplanationEvent> thresholds(Set<String> names) {
        return db.select(
                        DEFINITION.NAME,
                        THRESHOLD_VALUE.KEY,
                        THRESHOLD_VALUE.VALID_FROM,
                        THRESHOLD_VALUE.NUMBER,
                        THRESHOLD_VALUE.SET_AT,
                        THRESHOLD_VALUE.REASON,
                        PERSON.NAME)
                .from(THRESHOLD_VALUE)
                .join(DEFINITION)
                .on(DEFINITION.ID.eq(THRESHOLD_VALUE.THRESHOLD_ID))
                .join(PERSON)
                .on(PERSON.ID.eq(THRESHOLD_VALUE.SET_BY))
                .where(DEFINITION.NAME.in(names))
                .orderBy(THRESHOLD_VALUE.ID)
                .fetch(row -> {
                    String what =
                            row.value1() + (row.value2().length == 0 ? "" : " of " + String.join(", ", row.value2()));
                    String value = row.value4() == null
                            ? " removed"
                            : " set to " + row.value4().stripTrailingZeros().toPlainString();
                    String from = row.value3() == null ? "" : " from " + row.value3() + " on";
                    return new ExplanationEvent(
                            row.value5(),
                            About.THRESHOLD,
                            "threshold " + what + value + from + " by " + row.value7() + ": " + row.value6(),
                            null,
                            null);
                });
    }
}
