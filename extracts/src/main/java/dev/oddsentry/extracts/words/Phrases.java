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
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The sentences of a mail in one language; they stand in {@code words*.properties}. */
public final class Phrases {
    private static final Map<Language, Phrases> ALL = new EnumMap<>(Language.class);

    static {
        for (var language : Language.values()) ALL.put(language, new Phrases(language));
    }

    private static final Pattern PLACE = Pattern.compile("\\{(\\d)\\}");

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

    /** Numbers stand without marks between thousands; a text is written as it is. */
    public String of(String key, Object... values) {
        String pattern = PLACE.matcher(words.getString(key).replace("'", "''"))
                .replaceAll(place -> values[Integer.parseInt(place.group(1))] instanceof Number number
                        ? number.toString()
                        : Matcher.quoteReplacement(place.group()));
        return new MessageFormat(pattern, language.locale()).format(values);
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
