package dev.oddsentry.core.definition;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.finding.Severity;
import java.time.ZoneOffset;

/** Reads a round-up's document. */
final class RoundUpReader {
    private RoundUpReader() {}

    static RoundUpDefinition read(Fields top) {
        var common = CommonFields.read(top);
        var roundUp = new RoundUpDefinition(
                common.id(),
                common.name(),
                common.title(),
                top.requiredText("owner", "Traffic reporting"),
                top.parsed("zone", RuleReader::zone).orElse(ZoneOffset.UTC),
                top.choice("language", Language.values()).orElse(Language.EN),
                top.checkedTexts("rules", CommonFields::checkName).stream()
                        .distinct()
                        .toList(),
                DeliveryReader.people(top, "to"),
                top.choice("send_immediately", Severity.values()).orElse(null),
                ScheduleReader.times(top.fields("schedule")));
        // Without these it would never say anything, or say it to nobody.
        if (roundUp.rules().isEmpty()) top.refuseEmpty("rules", "[late-sailings, certificates]");
        if (roundUp.to().isEmpty()) top.refuseEmpty("to", "[desk@skerry.example]");
        if (roundUp.schedule().isOnDemandOnly())
            top.refuseEmpty("schedule", "{ start: 2026-01-05T08:00, recur: FREQ=WEEKLY }");
        top.refuseOthers();
        return roundUp;
    }
}
