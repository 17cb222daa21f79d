package dev.oddsentry.cli.output;

import dev.oddsentry.cli.client.ApiException;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/** Refusals in text: where, what was seen, what would be right; the line of the document with a mark under the place. */
public final class ProblemText {
    private ProblemText() {}

    public static String of(ApiException refused) {
        return of(refused, null, null);
    }

    /** @param file the document's name; @param text its text, to show the lines that problems stand in */
    public static String of(ApiException refused, @Nullable String file, @Nullable String text) {
        var lines = new ArrayList<String>();
        for (JsonNode problem : refused.problems()) lines.addAll(lines(problem, file, text));
        lines.add(refused.getMessage());
        return String.join(System.lineSeparator(), lines);
    }

    public static List<String> lines(JsonNode problem, @Nullable String file, @Nullable String text) {
        var lines = new ArrayList<String>();
        JsonNode place = problem.path("place");
        boolean placed = place.isObject();
        String where =
                file == null ? "" : file + (placed ? ":" + place.path("line") + ":" + place.path("column") : "") + ": ";
        String kind = problem.path("weight").asString("").equals("WARNING") ? "warning: " : "";
        lines.add(where + kind + problem.path("message").asString(""));
        String suggestion = problem.path("suggestion").isString()
                ? " did you mean \"" + problem.path("suggestion").asString("") + "\"?"
                : "";
        if (placed && text != null) {
            var textLines = text.lines().toList();
            int line = place.path("line").asInt(1);
            if (line <= textLines.size()) {
                lines.add("    " + textLines.get(line - 1));
                lines.add("    " + " ".repeat(Math.max(0, place.path("column").asInt(1) - 1)) + "^" + suggestion);
                return lines;
            }
        }
        if (!suggestion.isEmpty()) lines.add("   " + suggestion);
        return lines;
    }
}
