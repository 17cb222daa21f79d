package dev.oddsentry.core.definition;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/** Several values in one text, with commas between them: {@code Holm, Ternvik, "Varsund, quay 2"}. A quote inside quotes is doubled. */
final class ValueList {
    private ValueList() {}

    static List<String> read(String text) {
        var values = new ArrayList<String>();
        var value = new StringBuilder();
        boolean inQuotes = false;
        boolean wasQuoted = false;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            boolean doubled = inQuotes && c == '"' && i + 1 < text.length() && text.charAt(i + 1) == '"';
            if (doubled) {
                value.append(c);
                i++;
            } else if (c == '"' && (inQuotes || value.toString().isBlank())) {
                if (!inQuotes) value.setLength(0);
                inQuotes = !inQuotes;
                wasQuoted = true;
            } else if (c == ',' && !inQuotes) {
                values.add(wasQuoted ? value.toString() : value.toString().strip());
                value.setLength(0);
                wasQuoted = false;
            } else if (!wasQuoted || inQuotes) {
                value.append(c);
            }
        }
        values.add(wasQuoted ? value.toString() : value.toString().strip());
        return List.copyOf(values);
    }

    static String print(List<String> values) {
        return values.stream().map(ValueList::quoted).collect(Collectors.joining(", "));
    }

    private static String quoted(String value) {
        boolean plain =
                !value.contains(",") && !value.contains("\"") && value.equals(value.strip()) && !value.isEmpty();
        return plain ? value : '"' + value.replace("\"", "\"\"") + '"';
    }
}
