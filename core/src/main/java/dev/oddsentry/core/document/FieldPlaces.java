package dev.oddsentry.core.document;

import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Where the fields of one document stand in its text, down to a character within a field's text. */
public final class FieldPlaces {
    private final String text;
    private final Map<String, int[]> offsets = new HashMap<>();

    FieldPlaces(String text) {
        this.text = text;
    }

    /** @param written what the scalar means; @param start and @param end where it stands, quotes included */
    void put(String field, String written, int start, int end) {
        offsets.put(field, align(written, start, end));
    }

    /** A problem found within the text of a field, moved to its place in the document. */
    public Problem locate(String field, Problem within) {
        Place place = within.place();
        return within.within(field, place == null ? of(field) : in(field, place));
    }

    public @Nullable Place of(String field) {
        int[] known = offsets.get(field);
        return known == null ? null : Place.in(text, known[0], known[known.length - 1] - known[0]);
    }

    private @Nullable Place in(String field, Place within) {
        int[] known = offsets.get(field);
        if (known == null) return null;
        int last = known.length - 1;
        int from = known[Math.min(within.offset(), last)];
        int to = known[Math.min(within.offset() + Math.max(0, within.length() - 1), last)];
        return Place.in(text, from, within.length() == 0 ? 0 : Math.min(to - from + 1, text.length() - from));
    }

    /**
     * The document offset of each character of a scalar. Quotes, folding and indentation change only the blanks between, so the
     * other characters are found again in order; one behind an escape is off by the escape's length at most.
     */
    private int[] align(String written, int start, int end) {
        var aligned = new int[written.length() + 1];
        int at = start;
        for (int i = 0; i < written.length(); i++) {
            char wanted = written.charAt(i);
            if (!Character.isWhitespace(wanted)) {
                int found = text.indexOf(wanted, Math.min(at, end), end);
                at = found >= 0 ? found : at;
            }
            aligned[i] = Math.min(at, Math.max(start, end - 1));
            at++;
        }
        aligned[written.length()] = Math.min(at, end);
        return aligned;
    }
}
