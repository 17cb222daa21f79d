package dev.oddsentry.core.condition;

import java.util.Locale;
import java.util.ResourceBundle;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The phrases of which sentences about conditions are made, in one language; {@code sentence*.properties} has them. */
public final class SentenceWords {
    private static final Pattern PLACE = Pattern.compile("\\{(\\d)}");
    /** Without a fall-back to the language of the machine. */
    private static final ResourceBundle.Control ENGLISH_OTHERWISE =
            ResourceBundle.Control.getNoFallbackControl(ResourceBundle.Control.FORMAT_PROPERTIES);

    private final Locale locale;
    private final ResourceBundle phrases;

    private SentenceWords(Locale locale) {
        this.locale = locale;
        this.phrases = ResourceBundle.getBundle("dev.oddsentry.core.condition.sentence", locale, ENGLISH_OTHERWISE);
    }

    /** @param locale a language without phrases of its own gets English */
    public static SentenceWords in(Locale locale) {
        return new SentenceWords(locale);
    }

    public String of(String key, String... values) {
        return PLACE.matcher(phrases.getString(key))
                .replaceAll(place -> Matcher.quoteReplacement(values[Integer.parseInt(place.group(1))]));
    }

    /** @return {@code otherwise} if there is no such phrase, as for a name that a person mistyped */
    String orElse(String key, String otherwise) {
        return phrases.containsKey(key) ? phrases.getString(key) : otherwise;
    }

    /** @param is {@code false} for the opposite, which is a phrase of its own */
    String of(String key, boolean is, String... values) {
        return of(is ? key : key + ".not", values);
    }

    /** English puts the names of columns in small letters within a sentence, German does not. */
    boolean hasCapitalNouns() {
        return locale.getLanguage().equals("de");
    }

    /** English labels such as {@code Late by} need no verb. */
    boolean isEnglish() {
        return phrases.getLocale().equals(Locale.ROOT);
    }
}
