package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.LayoutDefinition.Shown;
import dev.oddsentry.core.definition.LayoutDefinition.Sort;
import dev.oddsentry.core.extract.CellFormat;
import dev.oddsentry.core.extract.ExtraColumn;
import dev.oddsentry.core.extract.Total;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;

/** Reads a layout: a rule's own or a shared one. */
final class LayoutReader {
    private static final Pattern SORT = Pattern.compile("(.+?)(?:\\s+(asc|desc))?");
    private static final String SHEET = "[^\\[\\]:*?/\\\\]{1,31}";
    private static final int MOST_ROWS_IN_MAIL = 500;
    private static final int WIDEST = 200;

    private LayoutReader() {}

    /** Other fields are left for the caller to refuse. */
    static LayoutDefinition read(Fields fields) {
        boolean fixed = fields.truth("fixed").orElse(false);
        var besides = fields.choices("extra_columns", ExtraColumn.values());
        return new LayoutDefinition(
                fields.fieldsOfItems("columns", "column").stream()
                        .map(LayoutReader::shown)
                        .toList(),
                sort(fields),
                fields.texts("group_by"),
                fields.parsed("rows_in_mail", text -> whole(text, MOST_ROWS_IN_MAIL))
                        .orElse(null),
                fields.truth("still_open").orElse(false),
                fixed,
                fields.parsed("sheet", LayoutReader::sheet).orElse(null),
                // What others build on has its columns and nothing else, unless it says so.
                fields.has("extra_columns") || fixed ? Set.copyOf(besides) : ExtraColumn.ALL);
    }

    private static Shown shown(Fields item) {
        var shown = new Shown(
                item.requiredText("column", "delay_min"),
                item.text("label").orElse(null),
                item.parsed("format", CellFormat::of).orElse(null),
                item.parsed("width", text -> whole(text, WIDEST)).orElse(null),
                item.choice("total", Total.values()).orElse(null));
        item.refuseOthers();
        return shown;
    }

    private static List<Sort> sort(Fields fields) {
        var sort = new ArrayList<Sort>();
        for (String text : fields.texts("sort")) {
            var matcher = SORT.matcher(text.strip());
            if (matcher.matches()) sort.add(new Sort(matcher.group(1), "desc".equals(matcher.group(2))));
        }
        return sort;
    }

    static Integer whole(String text, int most) {
        if (text.strip().matches("[1-9][0-9]{0,3}") && Integer.parseInt(text.strip()) <= most)
            return Integer.valueOf(text.strip());
        throw refused("\"" + text + "\" is not a whole number from 1 to " + most);
    }

    private static String sheet(String text) {
        if (text.strip().matches(SHEET)) return text.strip();
        throw refused("\"" + text + "\" is not a sheet name: max 31 characters, without [ ] : * ? / \\");
    }

    private static InvalidDefinitionException refused(String message) {
        return new InvalidDefinitionException(List.of(Problem.error(message, "", null)));
    }
}
