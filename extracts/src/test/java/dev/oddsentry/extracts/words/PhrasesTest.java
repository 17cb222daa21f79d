package dev.oddsentry.extracts.words;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.extract.Language;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Properties;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The sentences of mails and files say the same in every language. */
class PhrasesTest {
    private static final Pattern PLACE = Pattern.compile("\\{(\\d)[,}]");
    private static final Object[] NUMBERS = {0L, 1L, 2L, 5L};

    private static Properties of(Language language) {
        String name = language == Language.EN ? "words.properties" : "words_" + language.code() + ".properties";
        var properties = new Properties();
        try (Reader reader = new InputStreamReader(
                Objects.requireNonNull(Phrases.class.getResourceAsStream(name), name), StandardCharsets.UTF_8)) {
            properties.load(reader);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
        return properties;
    }

    private static Set<String> places(String sentence) {
        var places = new TreeSet<String>();
        PLACE.matcher(sentence).results().forEach(place -> places.add(place.group(1)));
        return places;
    }

    @ParameterizedTest
    @EnumSource(Language.class)
    void eachSentenceIsThereWithTheSamePlaces(Language language) {
        var english = of(Language.EN);
        var other = of(language);
        assertThat(other.stringPropertyNames()).containsExactlyInAnyOrderElementsOf(english.stringPropertyNames());
        for (String key : english.stringPropertyNames()) {
            if (key.startsWith("date.")) continue;
            assertThat(places(other.getProperty(key))).as(key).isEqualTo(places(english.getProperty(key)));
        }
    }

    @ParameterizedTest
    @EnumSource(Language.class)
    void eachSentenceIsWrittenForNoneOneAndMany(Language language) {
        var phrases = Phrases.in(language);
        for (String key : of(language).stringPropertyNames()) {
            if (key.startsWith("date.")) continue;
            for (Object number : NUMBERS)
                assertThat(phrases.of(key, number, number, number, number))
                        .as(key)
                        .isNotBlank()
                        .doesNotContain("{", "}", "choice", "|", "''");
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{0}",
                "{1}",
                "{2}",
                "it's",
                "''",
                "'{0}'",
                "$1",
                "\\1",
                "{0,choice,0#no}",
                "a|b",
                "#",
                "<",
                "漁船",
                "{",
                "}",
                "'"
            })
    void aValueIsWrittenAsItIs(String value) {
        for (var language : Language.values()) {
            var phrases = Phrases.in(language);
            assertThat(phrases.of("chart.over", value, 3))
                    .as(language.code())
                    .startsWith(value + " ")
                    .contains("3");
            assertThat(phrases.of("chart.line", "first", value, "{1}", value))
                    .contains("first", "{1}")
                    .satisfies(line -> assertThat(line.split(Pattern.quote(value), -1).length - 1)
                            .isGreaterThanOrEqualTo(2));
            assertThat(phrases.of("owner", value)).contains(value);
        }
    }

    @ParameterizedTest
    @EnumSource(Language.class)
    void alternativesAreJoined(Language language) {
        var phrases = Phrases.in(language);
        String or = " " + phrases.of("again.or") + " ";
        assertThat(phrases.joinedByOr(List.of("a"))).isEqualTo("a");
        assertThat(phrases.joinedByOr(List.of("a", "b"))).isEqualTo("a" + or + "b");
        assertThat(phrases.joinedByOr(new ArrayList<>(List.of("a", "b", "c")))).isEqualTo("a, b" + or + "c");
    }
}
