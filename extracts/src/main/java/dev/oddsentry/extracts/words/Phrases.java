package dev.oddsentry.extracts.words;

import dev.oddsentry.core.extract.Language;
import java.text.MessageFormat;
import java.time.format.DateTimeFormatter;
import java.time.temporal.TemporalAccessor;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.ResourceBundle;

/** The sentences of a mail in one language; they stand in {@code words*.properties}. */
public final class Phrases {
    private static final Map<Language, Phrases> ALL = new EnumMap<>(Language.class);

    static {
        for (var language : Language.values()) ALL.put(language, new Phrases(language));
    }

    private final Language language;
    private final ResourceBundle words;

    private Phrases(Language language) {
        this.language = language;
        // English is the bundle that others fall back to, and never the machine's own language.
        this.words = ResourceBundle.getBundle(
                "dev.oddsentry.extracts.words.words",
                language.locale(),
                ResourceBundle.Control.getNoFallbackControl(ResourceBundle.Control.FORMAT_PROPERTIES));
    }

    public static Phrases in(Language language) {
        return Objects.requireNonNull(ALL.get(language));
    }

    public Language language() {
        return language;
    }

    public String of(String key) {
        return words.getString(key);
    }

    /** Numbers stand without marks between thousands. */
    public String of(String key, Object... values) {
        String pattern = words.getString(key).replace("'", "''");
        for (int i = 0; i < values.length; i++) pattern = pattern.replace("{" + i + "}", literal(values[i]));
        return new MessageFormat(pattern, language.locale()).format(values);
    }

    private static String literal(Object value) {
        return value instanceof Number
                ? value.toString()
                : "'" + value.toString().replace("'", "''") + "'";
    }

    public String time(String pattern, TemporalAccessor time) {
        return DateTimeFormatter.ofPattern(words.getString(pattern), language.locale())
                .format(time);
    }

    /** {@code a, b or c}. */
    public String joinedByOr(List<String> parts) {
        var all = new ArrayList<>(parts);
        String last = all.removeLast();
        return all.isEmpty() ? last : String.join(", ", all) + " " + of("again.or") + " " + last;
    }
}
