package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.QueryDefinition.Choices;
import dev.oddsentry.core.definition.QueryDefinition.ColumnMeaning;
import dev.oddsentry.core.definition.QueryDefinition.Parameter;
import dev.oddsentry.core.extract.CellFormat;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Reads a query's document. */
final class QueryReader {
    private QueryReader() {}

    static QueryDefinition read(Fields top) {
        var common = CommonFields.read(top);
        var query = new QueryDefinition(
                common.id(),
                common.name(),
                common.title(),
                top.requiredText("source", "ferry"),
                top.requiredText("sql", "select ..."),
                parameters(top.fields("parameters")),
                columns(top.fields("columns")),
                RuleReader.labels(top, "categories"));
        top.refuseOthers();
        return query;
    }

    private static Map<String, Parameter> parameters(Fields written) {
        var parameters = new LinkedHashMap<String, Parameter>();
        for (String name : written.freeNames()) {
            Fields fields = written.fields(name);
            var type = fields.choice("type", ParameterType.values()).orElse(ParameterType.TEXT);
            boolean several = fields.truth("multiple").orElse(false);
            boolean optional = fields.truth("optional").orElse(false);
            var choices = choices(fields, type);
            String help = fields.text("help").orElse(null);
            var unset = new Parameter(type, null, several, optional, choices, help);
            var preset = preset(fields, several, unset::check);
            fields.refuseOthers();
            parameters.put(name, new Parameter(type, preset, several, optional, choices, help));
        }
        return parameters;
    }

    /** Several may be written as a list. */
    private static @Nullable String preset(Fields fields, boolean several, Consumer<String> check) {
        if (several && fields.isList("default")) return ValueList.print(fields.checkedTexts("default", check));
        return fields.parsed("default", text -> {
                    check.accept(text);
                    return text;
                })
                .orElse(null);
    }

    private static @Nullable Choices choices(Fields fields, ParameterType type) {
        if (!fields.isMapping("choices")) {
            var listed = fields.checkedTexts("choices", type::check);
            return listed.isEmpty() ? null : new Choices.Listed(listed);
        }
        var query = fields.fields("choices");
        var choices = new Choices.OfQuery(
                query.requiredText("from", "terminals"),
                query.requiredText("value", "name"),
                query.text("label").orElse(null));
        query.refuseOthers();
        return choices;
    }

    private static Map<String, ColumnMeaning> columns(Fields written) {
        var columns = new LinkedHashMap<String, ColumnMeaning>();
        for (String name : written.freeNames()) {
            Fields fields = written.fields(name);
            String label = fields.text("label").filter(text -> !text.isBlank()).orElse(name);
            String unit = fields.text("unit").orElse(null);
            var format = fields.parsed("format", CellFormat::of).orElse(null);
            var words = new LinkedHashMap<String, String>();
            var meanings = fields.fields("words");
            for (String code : meanings.freeNames()) meanings.text(code).ifPresent(word -> words.put(code, word));
            fields.refuseOthers();
            columns.put(name, new ColumnMeaning(label, unit, format, words));
        }
        return columns;
    }
}
