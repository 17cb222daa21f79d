package dev.oddsentry.cli.output;

import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.contract.Place;
import dev.oddsentry.contract.Problem;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Refusals in text: where, what was seen, what would be right; the line of the document with a mark under the place. */
public final class ProblemText {
    private ProblemText() {}

    public static String of(ApiException refused) {
        return of(refused, null, null);
    }

    /** @param file the document's name; @param text its text, to show the lines that problems stand in */
    public static String of(ApiException refused, @Nullable String file, @Nullable String text) {
        var lines = new ArrayList<String>();
        for (var problem : refused.problems()) lines.addAll(lines(problem, file, text));
        lines.add(refused.getMessage());
        return String.join(System.lineSeparator(), lines);
    }

    public static List<String> lines(Problem problem, @Nullable String file, @Nullable String text) {
        var lines = new ArrayList<String>();
        Place place = problem.place();
        String where =
                file == null ? "" : file + (place == null ? "" : ":" + place.line() + ":" + place.column()) + ": ";
        String kind = problem.weight().equals("WARNING") ? "warning: " : "";
        lines.add(where + kind + problem.message());
        String suggestion = problem.suggestion() == null ? "" : " did you mean \"" + problem.suggestion() + "\"?";
        if (place != null && text != null) {
            var textLines = text.lines().toList();
            int line = place.line();
            if (line <= textLines.size()) {
                lines.add("    " + textLines.get(line - 1));
                lines.add("    " + " ".repeat(Math.max(0, place.column() - 1)) + "^" + suggestion);
                return lines;
            }
        }
        if (!suggestion.isEmpty()) lines.add("   " + suggestion);
        return lines;
    }
}
