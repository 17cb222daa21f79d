package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.MailAddress.Target;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import java.util.List;

/** The document of a list of recipients. */
final class RecipientListFields {
    static final Part<RecipientListDefinition> PART = CommonFields.sharedTable(
            Kind.RECIPIENT_LIST, "Recipients that several rules mail under one name, as `list: NAME`.");

    private static final Field<RecipientListDefinition, List<String>> RECIPIENTS = PART.field(
                    "recipients",
                    DeliveryFields.PEOPLE,
                    RecipientListDefinition::recipients,
                    "The recipients. A list cannot contain another list.")
            .required("[desk@skerry.example]");

    private RecipientListFields() {}

    static RecipientListDefinition read(Fields top) {
        var common = CommonFields.read(top);
        var recipients = RECIPIENTS.read(top).orElse(List.of());
        for (String each : recipients)
            if (MailAddress.refersTo(Target.LIST, each))
                top.refuse("recipients", "\"" + each + "\" is a list; a list contains addresses, teams and people");
        return new RecipientListDefinition(
                common.id(),
                common.name(),
                common.title(),
                CommonFields.owner(top),
                CommonFields.visibleTo(top),
                recipients);
    }
}
