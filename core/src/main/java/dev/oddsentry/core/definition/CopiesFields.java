package dev.oddsentry.core.definition;

import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import dev.oddsentry.core.memory.FirstCheck;
import java.util.Map;

/** Personal copies of a rule. */
final class CopiesFields {
    static final Part<CopiesDefinition> PART = new Part<>(
            "copies",
            "Personal copies: one check of the rule, with a memory and messages of its own, for each row of a query.");

    private static final Field<CopiesDefinition, String> FROM = PART.field(
                    "from",
                    FieldTypes.nameOf("query"),
                    CopiesDefinition::from,
                    "The recipient query: one copy for each row.")
            .required("duty-managers");
    private static final Field<CopiesDefinition, String> KEY = PART.field(
                    "key", FieldTypes.text("column"), CopiesDefinition::key, "The column that identifies a copy.")
            .required("terminal");
    private static final Field<CopiesDefinition, String> ADDRESS = PART.field(
                    "address",
                    FieldTypes.text("column"),
                    CopiesDefinition::address,
                    "The column with one or more addresses. Where it is empty, the copy goes to the delivery's `to`.")
            .usual(CopiesDefinition.USUAL_ADDRESS);
    private static final Field<CopiesDefinition, String> GREETING = PART.field(
            "greeting",
            FieldTypes.text("column"),
            CopiesDefinition::greeting,
            "The column with the first line of the message.");
    private static final Field<CopiesDefinition, Map<String, String>> PARAMETERS = PART.field(
                    "parameters",
                    FieldTypes.byName(FieldTypes.text("column")),
                    CopiesDefinition::parameters,
                    "For parameters of the rule's query: the column with the copy's value.")
            .usual(Map.of());
    private static final Field<CopiesDefinition, FirstCheck> NEWCOMERS = PART.field(
                    "newcomers",
                    FieldTypes.choice(FirstCheck.values()),
                    CopiesDefinition::newcomers,
                    "Whether a copy that is added later reports the findings that already exist.")
            .usual(FirstCheck.TREAT_AS_KNOWN);

    private CopiesFields() {}

    static CopiesDefinition read(Fields fields) {
        return new CopiesDefinition(
                FROM.read(fields).orElse(""),
                KEY.read(fields).orElse(""),
                ADDRESS.in(fields),
                GREETING.orNull(fields),
                PARAMETERS.in(fields),
                NEWCOMERS.in(fields));
    }
}
