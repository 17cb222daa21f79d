package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.finding.Severity;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;

/** A round-up's document. */
final class RoundUpFields {
    static final Part<RoundUpDefinition> PART =
            CommonFields.table(Kind.ROUND_UP, "One message with the updates of several rules, at its own times.");

    private static final Field<RoundUpDefinition, String> OWNER = PART.field(
                    "owner",
                    FieldTypes.text("name of a team"),
                    RoundUpDefinition::owner,
                    "The team that owns the round-up.")
            .required("Traffic reporting");

    static {
        CommonFields.addVisibility(PART);
    }

    private static final Field<RoundUpDefinition, ZoneId> ZONE = PART.field(
                    "zone", CommonFields.ZONE, RoundUpDefinition::zone, "The zone of the schedule and of the message.")
            .usual(ZoneOffset.UTC)
            .usually("UTC")
            .alwaysWritten();
    private static final Field<RoundUpDefinition, Language> LANGUAGE = PART.field(
                    "language",
                    FieldTypes.choice(Language.values()),
                    RoundUpDefinition::language,
                    "The language of the message.")
            .usual(Language.EN);
    private static final Field<RoundUpDefinition, List<String>> RULES = PART.field(
                    "rules",
                    FieldTypes.nameOf("rule").list(),
                    RoundUpDefinition::rules,
                    "The rules, in the order of the message.")
            .required("[late-sailings, certificates]");
    private static final Field<RoundUpDefinition, List<String>> TO = PART.field(
                    "to", DeliveryFields.PEOPLE, RoundUpDefinition::to, "The recipients.")
            .required("[desk@skerry.example]");
    private static final Field<RoundUpDefinition, RoundUpDefinition.Statement> STATEMENT = PART.field(
                    "statement",
                    FieldTypes.choice(RoundUpDefinition.Statement.values()),
                    RoundUpDefinition::statement,
                    "Also states for each rule how often it was checked, what was not reported and why, and what failed; then the message is sent even without updates. `only`: the statement without updates.")
            .usually("updates only");
    private static final Field<RoundUpDefinition, Severity> SEND_IMMEDIATELY = PART.field(
                    "send_immediately",
                    SeverityFields.SEVERITY,
                    RoundUpDefinition::sendImmediately,
                    "Updates of this severity or higher are sent as soon as a check finds them.")
            .usually("all updates wait for the round-up");
    private static final Field<RoundUpDefinition, Boolean> ALLOW_UNSUBSCRIBE = PART.field(
                    "allow_unsubscribe",
                    FieldTypes.TRUTH,
                    roundUp -> roundUp.readers().allowUnsubscribe(),
                    "Gives each recipient an unsubscribe link.")
            .usual(false);
    private static final Field<RoundUpDefinition, List<ReaderChoice>> REFUSE_CHOICES = PART.field(
                    "refuse_choices",
                    FieldTypes.choice(ReaderChoice.OF_ROUND_UPS.toArray(ReaderChoice[]::new))
                            .list(),
                    roundUp -> roundUp.readers().refusedChoices(),
                    "What recipients may not choose by the link in each message: to `pause` until a date, or to `collect` the messages of a day or a week in one.")
            .usual(List.of())
            .usually("they may choose both");
    private static final Field<RoundUpDefinition, ScheduleDefinition> SCHEDULE = PART.field(
                    "schedule",
                    FieldTypes.part(ScheduleFields.TIMES, ScheduleFields::times),
                    RoundUpDefinition::schedule,
                    "The times of the round-up.")
            .required("{ start: 2026-01-05T08:00, recur: FREQ=WEEKLY }");

    private RoundUpFields() {}

    static RoundUpDefinition read(Fields top) {
        var common = CommonFields.read(top);
        var roundUp = new RoundUpDefinition(
                common.id(),
                common.name(),
                common.title(),
                OWNER.read(top).orElse(""),
                CommonFields.visibleTo(top),
                ZONE.in(top),
                LANGUAGE.in(top),
                RULES.read(top).orElse(List.of()).stream().distinct().toList(),
                TO.read(top).orElse(List.of()),
                STATEMENT.orNull(top),
                SEND_IMMEDIATELY.orNull(top),
                new RoundUpDefinition.ReaderOptions(
                        ALLOW_UNSUBSCRIBE.in(top),
                        REFUSE_CHOICES.in(top).stream().distinct().toList()),
                SCHEDULE.read(top).orElse(ScheduleDefinition.ON_DEMAND_ONLY));
        if (top.has(SCHEDULE.name()) && roundUp.schedule().isOnDemandOnly() && !top.isRefused())
            top.refuse(
                    SCHEDULE.name(),
                    "the schedule has no times; write it like schedule: { start: 2026-01-05T08:00, recur: FREQ=WEEKLY }");
        if (roundUp.sendImmediately() != null && !roundUp.reportsUpdates())
            top.refuse(
                    SEND_IMMEDIATELY.name(),
                    "a round-up with statement: only reports no updates; remove send_immediately, or write statement: with_updates");
        return roundUp;
    }
}
