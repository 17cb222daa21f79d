package dev.oddsentry.service.overview;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.REPORT;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.layouts.Layouts;
import dev.oddsentry.service.layouts.SeverityLook;
import dev.oddsentry.service.memory.FindingPlace;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import java.util.HashMap;
import java.util.List;
import java.util.Objects;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What a message reported, so that one gets from it to its findings. */
@Component
public class ReportedFindings {
    private static final int MOST_LISTED = 200;

    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Layouts layouts;
    private final VisibleDefinitions visible;

    ReportedFindings(DSLContext db, DefinitionStore definitions, Layouts layouts, VisibleDefinitions visible) {
        this.visible = visible;
        this.db = db;
        this.definitions = definitions;
        this.layouts = layouts;
    }

    /**
     * A finding as it is now.
     *
     * @param copy whose personal copy found it; null where the rule has none
     * @param identity the key in words
     * @param look how the rule names and colours the severity
     * @param updates why the message had it
     */
    public record MessageFinding(
            long id,
            String rule,
            @Nullable String copy,
            String identity,
            FindingState state,
            Severity severity,
            SeverityLook look,
            List<String> updates) {}

    /** @param total how many it reported; the first of them are listed, the worst first */
    public record MessageFindingList(long total, List<MessageFinding> findings) {}

    /** None of a message that reported nothing, such as a preview, or whose findings were deleted since. */
    public MessageFindingList of(MessageId message) {
        var rules = new HashMap<RuleId, RuleDefinition>();
        for (var rule : layouts.resolved(visible.rulesEver())) rules.put(rule.ruleId(), rule.definition());
        var rows = db.select(FINDING.asterisk(), REPORT.KINDS)
                .from(REPORT)
                .join(FINDING)
                .on(FINDING.ID.eq(REPORT.FINDING_ID))
                .where(REPORT.MESSAGE_ID.eq(message), FINDING.RULE_ID.in(rules.keySet()))
                .orderBy(FindingPlace.order())
                .limit(MOST_LISTED)
                .fetch();
        var findings = rows.map(row -> {
            var finding = row.into(FINDING);
            var rule = Objects.requireNonNull(rules.get(finding.getRuleId()));
            return new MessageFinding(
                    finding.getId(),
                    rule.name(),
                    finding.getCopyKey(),
                    CellText.joined(Json.cells(finding.getIdentity()), rule.zone()),
                    finding.getState(),
                    finding.getSeverity(),
                    SeverityLook.of(rule, finding.getSeverity()),
                    List.of(row.get(REPORT.KINDS)));
        });
        return new MessageFindingList(db.fetchCount(REPORT, REPORT.MESSAGE_ID.eq(message)), findings);
    }
}
