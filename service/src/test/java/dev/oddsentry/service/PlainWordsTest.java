package dev.oddsentry.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** No text that people read has a word that our style guide rules out. */
class PlainWordsTest {
    private static final Path ROOT = Path.of("").toAbsolutePath().getParent();

    /** Old or riddling words, and "is no X" in place of "is not an X". */
    private static final Pattern RULED_OUT = Pattern.compile(
            "\\b(reckon\\w*|anew|be it|unawares|whoever|nobody can tell|so (?:often|long|many)\\b(?! as)|in so many words|what is so"
                    + "|stands?|meanwhile|besides|by itself|for ever|let pass|no more)\\b|(?<!there |answer )\\b(?:is|are) no\\b(?! (?:longer|later|earlier|more than))",
            Pattern.CASE_INSENSITIVE);

    private static final Pattern LITERAL =
            Pattern.compile("\"\"\"(.*?)\"\"\"|\"((?:[^\"\\\\\\n]|\\\\.)*)\"", Pattern.DOTALL);
    private static final Pattern COMMENT = Pattern.compile("/\\*.*?\\*/|(?<![:\"\\w])//[^\\n]*", Pattern.DOTALL);

    private static Stream<Path> files(String folder, String ending) {
        try {
            return Files.walk(ROOT.resolve(folder))
                    .filter(file -> file.toString().endsWith(ending))
                    .toList()
                    .stream();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static String read(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static List<String> ruledOut(Path file, Stream<String> texts) {
        var found = new ArrayList<String>();
        texts.forEach(text -> {
            var word = RULED_OUT.matcher(text);
            if (word.find()) found.add(ROOT.relativize(file) + ": \"" + word.group() + "\" in: " + text.strip());
        });
        return found;
    }

    private static Stream<String> groups(Pattern pattern, String text) {
        return pattern.matcher(text).results().map(match -> {
            for (int i = 1; i <= match.groupCount(); i++) if (match.group(i) != null) return match.group(i);
            return "";
        });
    }

    @ParameterizedTest
    @CsvSource({"core", "extracts", "service", "cli"})
    void messagesOfTheCodeAreInPlainWords(String module) {
        assertThat(files(module + "/src/main/java", ".java")
                        .flatMap(file -> ruledOut(
                                file,
                                // A text with a space is a sentence, or part of one; others are names.
                                groups(LITERAL, COMMENT.matcher(read(file)).replaceAll(""))
                                        .filter(text -> text.strip().contains(" ")
                                                && !text.contains("select ")
                                                && !text.contains("insert ")))
                                .stream()))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"extracts/src/main/resources", "service/src/main/resources"})
    void textsOfMessagesAndPagesAreInPlainWords(String folder) {
        assertThat(files(folder, ".properties")
                        .filter(file -> !file.toString().matches(".*_(de|nb)\\.properties"))
                        .flatMap(file ->
                                ruledOut(file, read(file).lines().filter(line -> !line.startsWith("#"))).stream()))
                .isEmpty();
    }

    @Test
    void textsOfTheConsoleAreInPlainWords() {
        var file = ROOT.resolve("console/src/messages/en.json");
        assertThat(ruledOut(file, read(file).lines())).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "is reckoned on today's data | reckoned",
                "\"x\" is no date | is no",
                "told that so many rows | so many",
                "it stands beside it | stands",
                "Whoever has the address | Whoever",
            })
    void ruledOutWordIsFound(String text, String word) {
        var found = RULED_OUT.matcher(text);
        assertThat(found.find()).isTrue();
        assertThat(found.group()).isEqualTo(word);
    }

    @ParameterizedTest
    @CsvSource({"there is no query", "it is no longer open", "as long as it lasts", "standing order", "is no later than"
    })
    void plainWordsPass(String text) {
        assertThat(RULED_OUT.matcher(text).find()).isFalse();
    }
}
