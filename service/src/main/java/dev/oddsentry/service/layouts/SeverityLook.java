package dev.oddsentry.service.layouts;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Tone;
import dev.oddsentry.core.finding.Severity;
import java.util.Collection;
import java.util.EnumMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * How a rule names and colours one of its severities.
 *
 * @param word null for the usual one
 */
public record SeverityLook(@Nullable String word, Tone colour) {
    /** @param rule with its layout resolved */
    public static SeverityLook of(RuleDefinition rule, Severity severity) {
        var looks = rule.delivery().layout().severities();
        return new SeverityLook(looks.word(severity), looks.colour(severity));
    }

    /** What the rule calls it, in English. */
    public static String name(RuleDefinition rule, Severity severity) {
        String own = of(rule, severity).word();
        return own == null ? severity.word() : own;
    }

    /** Of several, by severity. @param rule with its layout resolved */
    public static Map<Severity, SeverityLook> of(RuleDefinition rule, Collection<Severity> severities) {
        var looks = new EnumMap<Severity, SeverityLook>(Severity.class);
        severities.forEach(severity -> looks.put(severity, of(rule, severity)));
        return looks;
    }

    /** Of a row that may be no exception. */
    public static @Nullable SeverityLook ofNullable(RuleDefinition rule, @Nullable Severity severity) {
        return severity == null ? null : of(rule, severity);
    }
}
