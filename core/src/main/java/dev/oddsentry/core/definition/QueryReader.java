package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.QueryDefinition.ColumnMeaning;
import dev.oddsentry.core.definition.QueryDefinition.Parameter;
import dev.oddsentry.core.extract.CellFormat;
import java.util.LinkedHashMap;
import java.util.Map;

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
                columns(top.fields("columns")));
        top.refuseOthers();
        return query;
    }

    private static Map<String, Parameter> parameters(Fields written) {
        var parameters = new LinkedHashMap<String, Parameter>();
        for (String name : written.freeNames()) {
            Fields fields = written.fields(name);
            var type = fields.choice("type", ParameterType.values()).orElse(ParameterType.TEXT);
            var preset = fields.parsed("default", text -> {
                type.check(text);
                return text;
            });
            fields.refuseOthers();
            parameters.put(name, new Parameter(type, preset.orElse(null)));
        }
        return parameters;
    }

    private static Map<String, ColumnMeaning> columns(Fields written) {
        var columns = new LinkedHashMap<String, ColumnMeaning>();
        for (String name : written.freeNames()) {
            Fields fields = written.fields(name);
            String label = fields.text("label").orElse(name);
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
