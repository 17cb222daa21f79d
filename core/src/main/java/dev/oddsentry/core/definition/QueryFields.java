package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.QueryDefinition.Choices;
import dev.oddsentry.core.definition.QueryDefinition.ColumnMeaning;
import dev.oddsentry.core.definition.QueryDefinition.Parameter;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldType;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import dev.oddsentry.core.document.ScalarType;
import dev.oddsentry.core.document.Shape;
import dev.oddsentry.core.extract.CellFormat;
import dev.oddsentry.core.extract.CellLink;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** A query's document. */
final class QueryFields {
    private static final Part<ColumnMeaning> COLUMN = new Part<>("column", "What a column of a query means.");
    private static final Field<ColumnMeaning, String> LABEL = COLUMN.field(
                    "label", FieldTypes.TEXT, ColumnMeaning::label, "The heading of the column.")
            .usually("the column's name");
    private static final Field<ColumnMeaning, String> UNIT =
            COLUMN.field("unit", FieldTypes.TEXT, ColumnMeaning::unit, "Shown after each value, such as `min`.");
    private static final Field<ColumnMeaning, CellFormat> FORMAT = COLUMN.field(
                    "format", LayoutFields.FORMAT, ColumnMeaning::format, "How values are written.")
            .usually("by the type of the column");
    private static final Field<ColumnMeaning, Map<String, String>> WORDS = COLUMN.field(
                    "words",
                    FieldTypes.byName(new ScalarType<>(Shape.scalar("text"), text -> text, text -> text)),
                    ColumnMeaning::words,
                    "Words for codes, by code.")
            .usual(Map.of());

    private static final Field<ColumnMeaning, CellLink> LINK = COLUMN.field(
            "link",
            new ScalarType<>(
                    Shape.text("address with columns, such as `https://records.example/sailings/{{sailing_id}}`"),
                    CellLink::of,
                    CellLink::template),
            ColumnMeaning::link,
            "Where a value leads, in messages and files; `{{url}}` for a column that holds the address.");

    private static final Part<Choices.OfQuery> CHOICES_OF_QUERY =
            new Part<>("choices", "Values for a parameter, offered from the rows of a query.");
    private static final Field<Choices.OfQuery, String> CHOICES_FROM = CHOICES_OF_QUERY
            .field("from", FieldTypes.nameOf("query"), Choices.OfQuery::from, "The query with the values.")
            .required("terminals");
    private static final Field<Choices.OfQuery, String> CHOICES_VALUE = CHOICES_OF_QUERY
            .field("value", FieldTypes.text("column"), Choices.OfQuery::value, "The column with the value.")
            .required("name");
    private static final Field<Choices.OfQuery, String> CHOICES_LABEL = CHOICES_OF_QUERY.field(
            "label", FieldTypes.text("column"), Choices.OfQuery::label, "The column with the words for the value.");

    private static final Part<Parameter> PARAMETER = new Part<>("parameter", "An input of a query.");
    private static final Field<Parameter, ParameterType> TYPE = PARAMETER
            .field("type", FieldTypes.choice(ParameterType.values()), Parameter::type, "The type of the value.")
            .usual(ParameterType.TEXT)
            .alwaysWritten();
    private static final Field<Parameter, String> DEFAULT = PARAMETER
            .field(
                    "default",
                    RuleFields.VALUES,
                    Parameter::defaultValue,
                    "The value for rules that give none: a literal or a relative date such as `today - 7 days`.")
            .usually("each rule sets the value");
    private static final Field<Parameter, Boolean> MULTIPLE = PARAMETER
            .field(
                    "multiple",
                    FieldTypes.TRUTH,
                    Parameter::multiple,
                    "A list of values, as in `where terminal in (:terminal)`.")
            .usual(false);
    private static final Field<Parameter, Boolean> OPTIONAL = PARAMETER
            .field("optional", FieldTypes.TRUTH, Parameter::optional, "Null where no value is given.")
            .usual(false);
    private static final Field<Parameter, Choices> CHOICES = PARAMETER
            .field(
                    "choices",
                    choices(ParameterType.TEXT),
                    Parameter::choices,
                    "A list of the only values that are allowed, or values offered from a query.")
            .usually("any value");
    private static final Field<Parameter, String> HELP =
            PARAMETER.field("help", FieldTypes.TEXT, Parameter::help, "Shown beside the field.");

    static final Part<QueryDefinition> PART = CommonFields.sharedTable(Kind.QUERY, "A saved report query.");

    private static final Field<QueryDefinition, List<String>> CATEGORIES = PART.field(
                    "categories", CommonFields.LABEL.list(), QueryDefinition::categories, "For filters in lists.")
            .usual(List.of());
    private static final Field<QueryDefinition, String> SOURCE = PART.field(
                    "source", FieldTypes.TEXT, QueryDefinition::source, "The source, by its name in this installation.")
            .required("ferry");
    private static final Field<QueryDefinition, String> SQL = PART.field(
                    "sql", FieldTypes.TEXT, QueryDefinition::sql, "One SELECT with named parameters such as `:since`.")
            .required("select ...");
    private static final Field<QueryDefinition, Map<String, Parameter>> PARAMETERS = PART.field(
                    "parameters",
                    FieldTypes.byName(FieldTypes.part(PARAMETER, QueryFields::parameter)),
                    QueryDefinition::parameters,
                    "The parameters of the SQL.")
            .usual(Map.of());
    private static final Field<QueryDefinition, Map<String, ColumnMeaning>> COLUMNS = PART.field(
                    "columns",
                    FieldTypes.byName(FieldType.of(
                            COLUMN.shape(),
                            (columns, name) -> Optional.of(column(columns.fields(name), name)),
                            COLUMN::print)),
                    QueryDefinition::columns,
                    "Labels, units, formats and words for codes.")
            .usual(Map.of());

    private QueryFields() {}

    static QueryDefinition read(Fields top) {
        var common = CommonFields.read(top);
        return new QueryDefinition(
                common.id(),
                common.name(),
                common.title(),
                CommonFields.owner(top),
                CommonFields.visibleTo(top),
                SOURCE.read(top).orElse(""),
                SQL.read(top).orElse(""),
                PARAMETERS.in(top),
                COLUMNS.in(top),
                CATEGORIES.in(top));
    }

    private static Parameter parameter(Fields fields) {
        var type = TYPE.in(fields);
        boolean several = MULTIPLE.in(fields);
        boolean optional = OPTIONAL.in(fields);
        var choices = CHOICES.read(fields, choices(type)).orElse(null);
        var help = HELP.orNull(fields);
        var unset = new Parameter(type, null, several, optional, choices, help);
        var preset =
                DEFAULT.read(fields, RuleFields.values(several, unset::check)).orElse(null);
        return new Parameter(type, preset, several, optional, choices, help);
    }

    private static FieldType<Choices> choices(ParameterType type) {
        var listed = new ScalarType<>(
                        Shape.scalar("value"),
                        text -> {
                            type.check(text);
                            return text;
                        },
                        text -> text)
                .list();
        var ofQuery = FieldTypes.part(CHOICES_OF_QUERY, QueryFields::choicesOfQuery);
        return FieldType.of(
                listed.shape().or(ofQuery.shape()),
                (fields, name) -> fields.isMapping(name)
                        ? ofQuery.read(fields, name).map(choices -> choices)
                        : listed.read(fields, name)
                                .filter(values -> !values.isEmpty())
                                .map(Choices.Listed::new),
                choices -> switch (choices) {
                    case Choices.Listed(var values) -> listed.print(values);
                    case Choices.OfQuery query -> ofQuery.print(query);
                });
    }

    private static Choices.OfQuery choicesOfQuery(Fields fields) {
        return new Choices.OfQuery(
                CHOICES_FROM.read(fields).orElse(""),
                CHOICES_VALUE.read(fields).orElse(""),
                CHOICES_LABEL.orNull(fields));
    }

    private static ColumnMeaning column(Fields fields, String name) {
        String label = LABEL.read(fields).filter(text -> !text.isBlank()).orElse(name);
        var meaning = new ColumnMeaning(
                label, UNIT.orNull(fields), FORMAT.orNull(fields), WORDS.in(fields), LINK.orNull(fields));
        fields.refuseOthers();
        return meaning;
    }
}
