package dev.oddsentry.service.roundups;

import dev.oddsentry.core.definition.DeliveryDefinition;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.CurrentFinding;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.memory.ReportPolicy;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.extracts.mail.CheckStatement;
import dev.oddsentry.extracts.mail.RoundUp;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.layouts.ExtractRows;
import dev.oddsentry.service.layouts.Layouts;
import dev.oddsentry.service.layouts.RememberedRows;
import dev.oddsentry.service.mail.ReaderLinks;
import dev.oddsentry.service.memory.LastReportWriter;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.memory.RoundUpMemory;
import dev.oddsentry.service.rules.RuleStates;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.statements.CheckStatements;
import dev.oddsentry.service.thresholds.ThresholdStore;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What a round-up has to say, rule by rule, out of memory: no query runs. */
@Component
public class RoundUpUpdates {
    private static final Duration FIRST_PERIOD = Duration.ofDays(7);

    private final DefinitionStore definitions;
    private final RoundUpMemory roundUps;
    private final MemoryStore memory;
    private final RuleStates rules;
    private final ThresholdStore thresholds;
    private final Schedules schedules;
    private final Settings settings;
    private final RememberedRows remembered;
    private final Layouts layouts;
    private final CheckStatements statements;
    private final ReaderLinks readerLinks;

    RoundUpUpdates(
            DefinitionStore definitions,
            RoundUpMemory roundUps,
            MemoryStore memory,
            RuleStates rules,
            ThresholdStore thresholds,
            Schedules schedules,
            Settings settings,
            RememberedRows remembered,
            Layouts layouts,
            CheckStatements statements,
            ReaderLinks readerLinks) {
        this.readerLinks = readerLinks;
        this.definitions = definitions;
        this.roundUps = roundUps;
        this.memory = memory;
        this.rules = rules;
        this.thresholds = thresholds;
        this.schedules = schedules;
        this.settings = settings;
        this.remembered = remembered;
        this.layouts = layouts;
        this.statements = statements;
    }

    /**
     * @param message its number; null for a preview
     * @param atLeast null for all updates
     */
    public record Asked(
            @Nullable MessageId message,
            Current<RoundUpDefinition> roundUp,
            Instant slot,
            @Nullable Severity atLeast) {}

    /** The part of one rule: what is reported, and what is treated as known. @param audience null if the rule is new in the round-up */
    record OfRule(
            RuleId ruleId,
            LastReportWriter.@Nullable Audience audience,
            List<ReportPolicy.Update<Long>> told,
            List<Long> letPass,
            RoundUp.@Nullable Section section) {}

    /** @param said null without updates */
    public record News(List<OfRule> rules, @Nullable RoundUp said) {}

    /** @param last the slot of the one before; null for the first */
    public News gather(Asked asked, @Nullable Instant last) {
        var roundUp = asked.roundUp().definition();
        var all = thresholds.all();
        var ofRules = new ArrayList<OfRule>();
        var sections = new ArrayList<RoundUp.Section>();
        var quiet = new ArrayList<String>();
        var stated = new ArrayList<Current<RuleDefinition>>();
        for (String name : roundUp.rules()) {
            var saved = definitions.rule(name).orElseThrow();
            var rule = new Current<>(saved.id(), saved.revision(), told(roundUp, saved.definition()));
            stated.add(rule);
            if (!roundUp.reportsUpdates()) continue;
            var found = of(asked, rule, all);
            ofRules.add(found);
            if (found.section() != null) sections.add(found.section());
            else quiet.add(rule.definition().title());
        }
        boolean states = roundUp.statement() != null && asked.atLeast() == null;
        if (sections.isEmpty() && !states) return new News(ofRules, null);
        var said = new RoundUp(
                roundUp.title(),
                roundUp.owner(),
                roundUp.zone(),
                roundUp.language(),
                asked.slot(),
                last,
                asked.atLeast() != null,
                sections,
                states ? statements(stated, asked, last) : List.of(),
                asked.atLeast() != null ? List.of() : quiet,
                schedules
                        .of(roundUp.schedule(), roundUp.zone())
                        .nextAfter(asked.slot())
                        .orElse(null),
                links(asked));
        return new News(ofRules, said);
    }

    private RoundUp.Links links(Asked asked) {
        String day = settings.baseUrl() + "/today";
        var message = asked.message();
        // A test installation sends to nobody else.
        if (message == null || settings.mail().testAddress() != null) return new RoundUp.Links(day, null, null);
        boolean mayLeave = asked.roundUp().definition().readers().allowUnsubscribe();
        return new RoundUp.Links(
                day,
                mayLeave ? readerLinks.stored(ReaderLinks.Purpose.LEAVE, message) : null,
                readerLinks.stored(ReaderLinks.Purpose.YOUR_MAIL, message));
    }

    /** Since the one before; of the first, for as long as it is to the next. */
    private List<CheckStatement> statements(List<Current<RuleDefinition>> rules, Asked asked, @Nullable Instant last) {
        var roundUp = asked.roundUp().definition();
        Instant to = asked.slot();
        Instant from = last != null
                ? last
                : schedules
                        .of(roundUp.schedule(), roundUp.zone())
                        .nextAfter(to)
                        .map(next -> to.minus(Duration.between(to, next)))
                        .orElse(to.minus(FIRST_PERIOD));
        return rules.stream().map(rule -> statements.of(rule, from, to)).toList();
    }

    /** In its own layout, and in the round-up's language. */
    private RuleDefinition told(RoundUpDefinition roundUp, RuleDefinition rule) {
        var resolved = layouts.resolved(rule);
        return resolved.withDelivery(resolved.delivery().in(roundUp.language()));
    }

    private OfRule of(Asked asked, Current<RuleDefinition> rule, Thresholds among) {
        var audience = roundUps.audience(asked.roundUp().id(), rule.ruleId()).orElse(null);
        var habits = rule.definition().memory();
        var differing = roundUps.differing(rule.ruleId(), audience, habits.remindEvery() != null);
        var moment = schedules.moment(rule.definition(), asked.slot());
        var tick = new MinimumDuration.Tick(rules.goodSlots(rule.ruleId()), false, asked.slot());
        var choice = new ReportPolicy(habits.report(), habits.confirmAfter(), habits.remindEvery())
                .choose(
                        differing.stream()
                                .map(each -> new ReportPolicy.Candidate<>(
                                        each.known().id(), each.known().now(), each.reported(), each.marks(), true))
                                .toList(),
                        moment,
                        tick,
                        PendingEffect.NONE);
        var told = choice.updates().stream()
                .filter(each -> asked.atLeast() == null || isAtOnce(each, asked.atLeast()))
                .sorted(Comparator.comparing(
                                (ReportPolicy.Update<Long> each) -> each.now().severity())
                        .reversed())
                .toList();
        // What must wait, waits whole.
        var letPass = asked.atLeast() == null ? choice.treatedAsKnown() : List.<Long>of();
        var section = told.isEmpty() ? null : section(rule, audience, told, moment, among);
        return new OfRule(rule.ruleId(), audience, told, letPass, section);
    }

    /** A reminder can wait, and so can what is over. */
    private static boolean isAtOnce(ReportPolicy.Update<Long> told, Severity atLeast) {
        return told.differs()
                && told.now().state() == FindingState.OPEN
                && told.now().severity().compareTo(atLeast) >= 0;
    }

    private RoundUp.Section section(
            Current<RuleDefinition> rule,
            LastReportWriter.@Nullable Audience audience,
            List<ReportPolicy.Update<Long>> told,
            Moment moment,
            Thresholds among) {
        var definition = rule.definition();
        var ofRule = remembered.of(definition, moment, among);
        var rows = ofRule.rows();
        // Of data that must not be mailed, only the number is shown.
        int mostRows = definition.delivery().show() == DeliveryDefinition.Show.LINK ? 0 : RoundUp.MOST_ROWS;
        var shown = told.stream().limit(mostRows).toList();
        var ids = shown.stream().map(ReportPolicy.Update::subject).toList();
        var last = memory.lastRows(ids);
        var reported = roundUps.reportedRows(audience, ids);
        String link = settings.baseUrl() + "/rules/" + definition.name();
        var said = shown.stream()
                .map(each -> row(
                        link,
                        rows,
                        each,
                        Objects.requireNonNull(last.get(each.subject())),
                        reported.getOrDefault(each.subject(), Map.of())))
                .toList();
        var more = told.stream()
                .skip(mostRows)
                .map(each -> new Extract.Row(each.now().severity(), each.kinds(), List.of()))
                .toList();
        return new RoundUp.Section(
                definition.title(), rows.extract(said), more, roundUps.open(rule.ruleId()), ofRule.because(), link);
    }

    /** @param ofRule where the rule is seen */
    private static Extract.Row row(
            String ofRule,
            ExtractRows rows,
            ReportPolicy.Update<Long> told,
            Map<String, @Nullable Object> last,
            Map<String, @Nullable Object> was) {
        CurrentFinding now = told.now();
        var row = now.state() == FindingState.OPEN
                ? rows.remembered(now.severity(), told.kinds(), last, was)
                : rows.past(now.severity(), told.kinds(), last);
        return row.linked(ofRule + "/findings/" + told.subject());
    }
}
