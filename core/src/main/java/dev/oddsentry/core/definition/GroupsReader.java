package dev.oddsentry.core.definition;

import dev.oddsentry.core.condition.Condition;
import dev.oddsentry.core.definition.RuleDefinition.ExpectedGroups;
import dev.oddsentry.core.definition.RuleDefinition.GroupsDefinition;
import dev.oddsentry.core.definition.RuleDefinition.Measure;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Reads how a rule puts rows together: {@code per}, {@code measures} and {@code groups from}. */
final class GroupsReader {
    private static final Pattern LAST_CHECKS = Pattern.compile("last (\\d{1,4}) checks?");

    private GroupsReader() {}

    static @Nullable GroupsDefinition read(Fields top, DocumentText document) {
        boolean grouped = top.has("per");
        var per = top.texts("per");
        var measures = measures(top.fields("measures"));
        var from = top.parsed("expected_groups", GroupsReader::expected).orElse(null);
        if (grouped) {
            if (from != null && per.isEmpty())
                document.refuse(
                        "expected_groups",
                        "the whole result is one group, which is always there; leave this out",
                        null);
            return new GroupsDefinition(per, measures, from);
        }
        if (!measures.isEmpty()) document.refuse("measures", needsPer("measures"), null);
        if (from != null) document.refuse("expected_groups", needsPer("expected_groups"), null);
        return null;
    }

    private static String needsPer(String field) {
        return field + " belongs to a rule over groups; write per: [column], or per: [] for the whole result";
    }

    private static Map<String, Measure> measures(Fields fields) {
        var measures = new LinkedHashMap<String, Measure>();
        for (String name : fields.freeNames()) {
            if (!fields.isMapping(name)) {
                fields.parsed(name, GroupsReader::grammar)
                        .ifPresent(value -> measures.put(name, new Measure(value, null, null)));
                continue;
            }
            Fields one = fields.fields(name);
            one.requiredText("value", "sum(litres)");
            one.parsed("value", GroupsReader::grammar)
                    .ifPresent(value -> measures.put(
                            name,
                            new Measure(
                                    value,
                                    one.text("label")
                                            .filter(label -> !label.isBlank())
                                            .orElse(null),
                                    one.text("unit").orElse(null))));
            one.refuseOthers();
        }
        return measures;
    }

    static String grammar(String text) {
        var problems = Condition.checkGrammar(text);
        if (!problems.isEmpty()) throw new InvalidDefinitionException(problems);
        return text;
    }

    private static ExpectedGroups expected(String text) {
        var last = LAST_CHECKS.matcher(text.strip());
        if (last.matches() && Integer.parseInt(last.group(1)) > 0)
            return new ExpectedGroups.OfLastChecks(Integer.parseInt(last.group(1)));
        if (text.matches("[a-z0-9][a-z0-9_-]*")) return new ExpectedGroups.OfQuery(text);
        throw new InvalidDefinitionException(List.of(Problem.error(
                "\"" + text + "\" is neither the name of a query nor, such as, last 5 checks", "", null)));
    }
}
