package dev.oddsentry.core.definition;

import dev.oddsentry.core.condition.FireWhen;
import dev.oddsentry.core.definition.RuleDefinition.Band;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.snakeyaml.engine.v2.nodes.MappingNode;

/** Reads a rule's document. Conditions are checked for their grammar here, against columns when the rule is saved. */
final class RuleReader {
    private static final List<Band> EVERY_EXCEPTION_A_WARNING = List.of(new Band(Severity.WARNING, null));

    private RuleReader() {}

    static RuleDefinition read(Fields top, DocumentText document) {
        var common = CommonFields.read(top);
        var schedule = ScheduleReader.read(top.fields("schedule"));
        var rule = new RuleDefinition(
                common.id(),
                common.name(),
                common.title(),
                top.requiredText("owner", "Traffic reporting"),
                top.requiredText("query", "sailings-lately"),
                top.parsed("zone", RuleReader::zone).orElse(ZoneOffset.UTC),
                parameters(top.fields("parameters")),
                GroupsReader.read(top, document),
                top.parsed("exceptions", GroupsReader::grammar).orElse(null),
                severity(top, document),
                top.parsed("fire_when", RuleReader::fireWhen).orElse(null),
                MemoryReader.read(top.fields("memory"), top, document),
                schedule.times(),
                schedule.occasions(),
                LimitsReader.read(top.fields("limits")),
                CopiesReader.read(top),
                DeliveryReader.read(top.fields("delivery")),
                new RuleDefinition.Filing(
                        labels(top, "labels"), top.text("copied_from").orElse(null)));
        top.refuseOthers();
        return rule;
    }

    /** Words without commas, since lists of them are written with commas. */
    static List<String> labels(Fields top, String name) {
        return top.checkedTexts(name, text -> {
            if (text.isBlank() || text.contains(",") || text.length() > 60)
                throw refused("\"" + text + "\": a word or a few, without a comma and of 60 characters at most");
        });
    }

    private static String fireWhen(String text) {
        var problems = FireWhen.read(text).problems();
        if (problems.stream().anyMatch(Problem::stopsSave)) throw new InvalidDefinitionException(problems);
        return text;
    }

    static ZoneId zone(String text) {
        try {
            return ZoneId.of(text);
        } catch (DateTimeException unknown) {
            throw refused("\"" + text + "\" is not a time zone. Example: Europe/Oslo");
        }
    }

    private static Map<String, String> parameters(Fields written) {
        var parameters = new LinkedHashMap<String, String>();
        for (String name : written.freeNames()) {
            if (written.isList(name)) parameters.put(name, ValueList.print(written.texts(name)));
            else written.text(name).ifPresent(value -> parameters.put(name, value));
        }
        return parameters;
    }

    private static List<Band> severity(Fields top, DocumentText document) {
        var bands = new ArrayList<Band>();
        var items = top.items("severity");
        for (int i = 0; i < items.size(); i++) {
            String path = "severity[" + i + "]";
            if (items.get(i) instanceof MappingNode mapping)
                bandWithCondition(new Fields(document, path, mapping), bands);
            else {
                Fields bare = new Fields(document, path, null);
                bare.scalar(path, items.get(i))
                        .flatMap(text -> document.located(path, () -> severityOf(text)))
                        .ifPresent(severity -> bands.add(new Band(severity, null)));
            }
        }
        if (bands.isEmpty()) return EVERY_EXCEPTION_A_WARNING;
        boolean otherwiseLast = bands.getLast().condition() == null
                && bands.stream().filter(band -> band.condition() == null).count() == 1;
        if (!otherwiseLast && !document.isRefused()) {
            document.refuse(
                    "severity",
                    "the last entry, and only it, is a bare severity, such as warning: every other exception gets it",
                    items.getLast());
        }
        return List.copyOf(bands);
    }

    private static void bandWithCondition(Fields fields, List<Band> bands) {
        for (Severity severity : Severity.values()) {
            fields.parsed(severity.word(), GroupsReader::grammar)
                    .ifPresent(text -> bands.add(new Band(severity, text)));
        }
        fields.refuseOthers();
    }

    private static Severity severityOf(String text) {
        for (Severity severity : Severity.values()) if (severity.word().equals(text)) return severity;
        throw refused("\"" + text + "\" is none of notice, warning, critical");
    }

    private static InvalidDefinitionException refused(String message) {
        return new InvalidDefinitionException(List.of(Problem.error(message, "", null)));
    }
}
