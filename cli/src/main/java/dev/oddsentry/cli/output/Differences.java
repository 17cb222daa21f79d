package dev.oddsentry.cli.output;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/** Where two documents differ, field by field. */
public final class Differences {
    private Differences() {}

    /** {@code - field: before} and {@code + field: after}, in the order of the first document; none where they say the same. */
    public static List<String> lines(JsonNode before, JsonNode after) {
        var old = new LinkedHashMap<String, String>();
        var now = new LinkedHashMap<String, String>();
        flatten("", before, old);
        flatten("", after, now);
        var fields = new LinkedHashSet<>(old.keySet());
        fields.addAll(now.keySet());
        var lines = new ArrayList<String>();
        for (String field : fields) {
            String was = old.get(field);
            String is = now.get(field);
            if (was != null && was.equals(is)) continue;
            if (was != null) lines.add("- " + field + ": " + was);
            if (is != null) lines.add("+ " + field + ": " + is);
        }
        return lines;
    }

    /** Lists are compared as a whole: which of their items moved where helps nobody. */
    private static void flatten(String path, JsonNode node, Map<String, String> into) {
        if (node.isObject())
            node.properties()
                    .forEach(each -> flatten(
                            path.isEmpty() ? each.getKey() : path + ", " + each.getKey(), each.getValue(), into));
        else if (!node.isNull() && !node.isMissingNode())
            into.put(path, node.isValueNode() ? node.asString("") : node.toString());
    }
}
