package dev.oddsentry.core.definition;

import dev.oddsentry.core.memory.FirstCheck;
import java.util.LinkedHashMap;
import org.jspecify.annotations.Nullable;

/** Reads what a rule's document says of personal copies. */
final class CopiesReader {
    private CopiesReader() {}

    static @Nullable CopiesDefinition read(Fields top) {
        if (!top.isMapping("copies")) {
            // Says so where something else stands there.
            top.fields("copies");
            return null;
        }
        var fields = top.fields("copies");
        var columns = fields.fields("parameters");
        var parameters = new LinkedHashMap<String, String>();
        for (String name : columns.freeNames()) columns.text(name).ifPresent(column -> parameters.put(name, column));
        var copies = new CopiesDefinition(
                fields.requiredText("from", "duty-managers"),
                fields.requiredText("key", "terminal"),
                fields.text("address").orElse(CopiesDefinition.USUAL_ADDRESS),
                fields.text("greeting").orElse(null),
                parameters,
                fields.choice("newcomers", FirstCheck.values()).orElse(FirstCheck.TREAT_AS_KNOWN));
        fields.refuseOthers();
        return copies;
    }
}
