package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.LayoutDefinition.Shown;
import dev.oddsentry.core.definition.LayoutDefinition.Sort;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import dev.oddsentry.core.document.ScalarType;
import dev.oddsentry.core.document.Shape;
import dev.oddsentry.core.extract.CellFormat;
import dev.oddsentry.core.extract.ExtraColumn;
import dev.oddsentry.core.extract.RowsAs;
import dev.oddsentry.core.extract.SeverityLooks;
import dev.oddsentry.core.extract.SeverityLooks.Look;
import dev.oddsentry.core.extract.Tone;
import dev.oddsentry.core.extract.Total;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** A layout: a rule's own, or a shared one with a document of its own. */
final class LayoutFields {
    static final ScalarType<CellFormat> FORMAT = new ScalarType<>(
            Shape.text("format, such as `0.00` or `d MMM yyyy HH:mm`"), CellFormat::of, CellFormat::pattern);

    private static final Pattern SORT_TEXT = Pattern.compile("(.+?)(?:\\s+(asc|desc))?");
    private static final String SHEET_NAME = "[^\\[\\]:*?/\\\\]{1,31}";
    private static final int MOST_ROWS_IN_MAIL = 500;
    private static final int WIDEST = 200;
    private static final int LONGEST_WORD = 30;

    private static final Part<Shown> SHOWN = new Part<>("shown_column", "A column of an extract.");
    private static final Field<Shown, String> COLUMN = SHOWN.field(
                    "column", FieldTypes.text("column"), Shown::column, "The column of the query.")
            .required("delay_min");
    private static final Field<Shown, String> LABEL =
            SHOWN.field("label", FieldTypes.TEXT, Shown::label, "The heading.").usually("the query's label");
    private static final Field<Shown, CellFormat> COLUMN_FORMAT = SHOWN.field(
                    "format", FORMAT, Shown::format, "How values are written.")
            .usually("the query's format");
    private static final Field<Shown, Integer> WIDTH = SHOWN.field(
                    "width", FieldTypes.whole(1, WIDEST), Shown::width, "In characters.")
            .usually("by the values");
    private static final Field<Shown, Total> TOTAL = SHOWN.field(
                    "total",
                    FieldTypes.choice(Total.values()),
                    Shown::total,
                    "A total below the rows, and below each group.")
            .usually("none");

    private static final Part<Look> LOOK = new Part<>("severity_look", "The word and the colour of a severity.");
    private static final Field<Look, Severity> LEVEL = LOOK.field(
                    "level", SeverityFields.SEVERITY, Look::level, "The severity.")
            .required("critical");
    private static final Field<Look, String> WORD = LOOK.field(
                    "word",
                    FieldTypes.text("text, max 30 characters", LayoutFields::word),
                    Look::word,
                    "The word that readers see, such as `over the limit`.")
            .usually("`critical`, `warning`, `notice` in the language of the message");
    private static final Field<Look, Tone> COLOUR = LOOK.field(
                    "colour", FieldTypes.choice(Tone.values()), Look::colour, "The colour; `green`: something good.")
            .usually("red, amber and grey");

    static final Part<LayoutDefinition> PART = new Part<>("delivery_layout", "How an extract looks.");

    private static final Field<LayoutDefinition, List<Shown>> COLUMNS = PART.field(
                    "columns",
                    FieldTypes.parts(SHOWN, "column", LayoutFields::shown),
                    LayoutDefinition::columns,
                    "The columns that are shown, in this order.")
            .usual(List.of())
            .usually("all columns of the query");
    private static final Field<LayoutDefinition, List<Sort>> SORT = PART.field(
                    "sort",
                    new ScalarType<>(Shape.text("column, perhaps with `desc`"), LayoutFields::sort, LayoutFields::text)
                            .list(),
                    LayoutDefinition::sort,
                    "The order of the rows.")
            .usual(List.of())
            .usually("worst first");
    private static final Field<LayoutDefinition, List<String>> GROUP_BY = PART.field(
                    "group_by",
                    FieldTypes.text("column").list(),
                    LayoutDefinition::groupBy,
                    "Group headings, and totals for each group and overall.")
            .usual(List.of());
    private static final Field<LayoutDefinition, Integer> ROWS_IN_MAIL = PART.field(
                    "rows_in_mail",
                    FieldTypes.whole(1, MOST_ROWS_IN_MAIL),
                    LayoutDefinition::rowsInMail,
                    "The number of rows in the message; files have all rows.")
            .usually("50");
    private static final Field<LayoutDefinition, RowsAs> ROWS_AS = PART.field(
                    "rows_as",
                    FieldTypes.choice(RowsAs.values()),
                    LayoutDefinition::rowsAs,
                    "How the rows appear in the message: a table, a list with two lines for each row, or figures (numbers and totals, no rows).")
            .usually("table for up to 8 columns that fit; otherwise list");
    private static final Field<LayoutDefinition, Boolean> STILL_OPEN = PART.field(
                    "still_open",
                    FieldTypes.TRUTH,
                    LayoutDefinition::stillOpen,
                    "Below the updates, also lists findings that were reported earlier and are still open.")
            .usual(false);
    private static final Field<LayoutDefinition, Boolean> WHOLE_REPORT = PART.field(
                    "whole_report",
                    FieldTypes.TRUTH,
                    LayoutDefinition::wholeReport,
                    "Below the updates, also lists all rows of the query, or all groups, with the exceptions marked.")
            .usual(false);
    private static final Field<LayoutDefinition, Boolean> FIXED = PART.field(
                    "fixed",
                    FieldTypes.TRUTH,
                    LayoutDefinition::fixed,
                    "Files contain only these columns, in this order, for other programs.")
            .usual(false);
    private static final Field<LayoutDefinition, String> SHEET = PART.field(
            "sheet",
            FieldTypes.text("text, max 31 characters", LayoutFields::sheet),
            LayoutDefinition::sheet,
            "The name of a workbook's sheet.");
    private static final Field<LayoutDefinition, List<ExtraColumn>> EXTRA_COLUMNS = PART.field(
                    "extra_columns",
                    FieldTypes.choice(ExtraColumn.values()).list(),
                    LayoutFields::extraColumns,
                    "Columns before the others, in files; `[]`: none.")
            .usually("all; none in a fixed layout")
            .alwaysWritten();

    private static final Field<LayoutDefinition, List<Look>> SEVERITIES = PART.field(
                    "severities",
                    FieldTypes.parts(LOOK, "level", LayoutFields::look),
                    layout -> layout.severities().all(),
                    "Words and colours of severities, in messages, files and the console.")
            .usual(List.of())
            .usually("`critical`, `warning`, `notice`");

    static final Part<SharedLayoutDefinition> SHARED =
            CommonFields.sharedTable(Kind.LAYOUT, "A layout that rules share.");

    private static final Field<SharedLayoutDefinition, String> PRIVATE_TO = SHARED.field(
                    "private_to",
                    FieldTypes.text("login of a user"),
                    SharedLayoutDefinition::privateTo,
                    "The only user who sees it, for files of their own; rules cannot use it.")
            .usually("shared");

    static {
        SHARED.include(PART, SharedLayoutDefinition::layout);
    }

    private LayoutFields() {}

    static SharedLayoutDefinition shared(Fields top) {
        var common = CommonFields.read(top);
        return new SharedLayoutDefinition(
                common.id(),
                common.name(),
                common.title(),
                CommonFields.owner(top),
                CommonFields.visibleTo(top),
                PRIVATE_TO.orNull(top),
                read(top));
    }

    static LayoutDefinition read(Fields fields) {
        boolean fixed = FIXED.in(fields);
        var extra = EXTRA_COLUMNS.read(fields);
        return new LayoutDefinition(
                COLUMNS.in(fields),
                SORT.in(fields),
                GROUP_BY.in(fields),
                ROWS_IN_MAIL.orNull(fields),
                ROWS_AS.orNull(fields),
                STILL_OPEN.in(fields),
                WHOLE_REPORT.in(fields),
                fixed,
                SHEET.orNull(fields),
                extra.<Set<ExtraColumn>>map(Set::copyOf).orElse(usualExtraColumns(fixed)),
                looks(fields));
    }

    /** A layout that others build on has its columns and nothing else, unless it says so. */
    private static Set<ExtraColumn> usualExtraColumns(boolean fixed) {
        return fixed ? Set.of() : ExtraColumn.ALL;
    }

    private static @Nullable List<ExtraColumn> extraColumns(LayoutDefinition layout) {
        if (layout.extraColumns().equals(usualExtraColumns(layout.fixed()))) return null;
        return layout.extraColumns().stream().sorted().toList();
    }

    private static Shown shown(Fields item) {
        return new Shown(
                COLUMN.read(item).orElse(""),
                LABEL.orNull(item),
                COLUMN_FORMAT.orNull(item),
                WIDTH.orNull(item),
                TOTAL.orNull(item));
    }

    private static SeverityLooks looks(Fields fields) {
        var looks = SEVERITIES.in(fields);
        long levels = looks.stream().map(Look::level).distinct().count();
        if (levels < looks.size() && !fields.isRefused())
            fields.refuse("severities", "two entries have the same level; each severity has one word and one colour");
        return new SeverityLooks(looks);
    }

    private static Look look(Fields item) {
        return new Look(LEVEL.read(item).orElse(Severity.WARNING), WORD.orNull(item), COLOUR.orNull(item));
    }

    private static String word(String text) {
        if (!text.isBlank() && text.length() <= LONGEST_WORD && text.lines().count() == 1) return text.strip();
        throw InvalidDefinitionException.of(
                "\"" + text + "\" is not a word for a severity: 1 to 30 characters, on one line");
    }

    private static Sort sort(String text) {
        var matcher = SORT_TEXT.matcher(text.strip());
        if (matcher.matches()) return new Sort(matcher.group(1), "desc".equals(matcher.group(2)));
        throw InvalidDefinitionException.of("an empty text is not a column. Example: delay_min desc");
    }

    private static String text(Sort sort) {
        return sort.column() + (sort.descending() ? " desc" : "");
    }

    private static String sheet(String text) {
        if (text.strip().matches(SHEET_NAME)) return text.strip();
        throw InvalidDefinitionException.of(
                "\"" + text + "\" is not a sheet name: max 31 characters, without [ ] : * ? / \\");
    }
}
