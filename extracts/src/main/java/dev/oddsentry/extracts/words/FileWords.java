package dev.oddsentry.extracts.words;

import dev.oddsentry.core.extract.CellWords;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Outline;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** What files say besides what is in their rows, in the extract's language. */
public final class FileWords {
    private final Phrases phrases;
    /** Looked up for each row, of which there may be very many. */
    private final Map<Severity, String> severities = new EnumMap<>(Severity.class);

    private final SeverityWords looks;

    private final Map<Set<UpdateKind>, String> news = new HashMap<>();

    private FileWords(Phrases phrases, SeverityWords looks) {
        this.phrases = phrases;
        this.looks = looks;
        for (var severity : Severity.values()) severities.put(severity, looks.word(severity));
    }

    public static FileWords of(Extract extract) {
        var phrases = Phrases.in(extract.language());
        return new FileWords(phrases, SeverityWords.of(phrases, extract));
    }

    public String severityHeading() {
        return phrases.of("file.severity");
    }

    public String newsHeading() {
        return phrases.of("file.update");
    }

    /** The empty text of a row that has none. */
    public String signAndSeverity(Extract.Row row) {
        var severity = row.severity();
        return severity == null ? "" : looks.sign(severity) + " " + severity(severity);
    }

    /** Of a row's severity, as {@code #rrggbb} on white. */
    public String colour(Extract.Row row) {
        return looks.colour(row);
    }

    /** The longest of the words, in characters with their sign. */
    public int widestSeverity() {
        return 2 + severities.values().stream().mapToInt(String::length).max().orElse(0);
    }

    /** The empty text for none. */
    public String severity(@Nullable Severity severity) {
        if (severity == null) return "";
        return Objects.requireNonNull(severities.get(severity));
    }

    /** The empty text for none. */
    public String news(Set<UpdateKind> kinds) {
        return news.computeIfAbsent(
                kinds,
                each -> each.stream()
                        .sorted()
                        .map(kind -> phrases.of("file.update." + kind.name()))
                        .collect(Collectors.joining(", ")));
    }

    /** The values that a group's rows have in common. */
    public String group(List<? extends @Nullable Object> values, Extract extract) {
        var words = new ArrayList<String>();
        for (int i = 0; i < values.size(); i++) {
            var column = extract.columns().get(extract.arrangement().groupBy().get(i));
            Object value = values.get(i);
            words.add(value == null ? phrases.of("missing") : CellWords.of(value, column, extract));
        }
        return String.join(", ", words);
    }

    /** What stands before totals: of a group, of what is reported, or of all. */
    public String total(Outline.TotalLine total, Extract extract) {
        if (!total.values().isEmpty()) return phrases.of("file.total.of", group(total.values(), extract));
        return phrases.of(total.reported() ? "total.reported" : "total.all", total.rows());
    }

    /** Above each of several tables that stand for one that is too wide. */
    public String columnsOf(int part, int parts) {
        return phrases.of("file.columns", part, parts);
    }

    /** Below the title of a file whose fonts lack some of its letters, or cannot set them in their order. */
    public String lettersMissing() {
        return phrases.of("file.letters");
    }

    public String noRows() {
        return phrases.of("file.noRows");
    }
}
