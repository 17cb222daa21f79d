package dev.oddsentry.core.definition;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Each document in the documentation can be read as it is written. */
class DocumentExamplesTest {
    private static final Pattern BLOCK = Pattern.compile("(?ms)^```yaml\\n(.*?)^```");
    private static final String REST_OF_A_RULE =
            "kind: rule\nname: late\nowner: Traffic reporting\nquery: sailings\nmemory: { key: [sailing] }\n";

    static Stream<String> examples() throws IOException {
        try (var pages = Files.list(Path.of("../docs"))) {
            List<String> examples = pages.filter(page -> page.toString().endsWith(".md"))
                    .sorted()
                    .map(DocumentExamplesTest::read)
                    .flatMap(text -> BLOCK.matcher(text).results().map(block -> block.group(1)))
                    .toList();
            assertThat(examples).hasSizeGreaterThan(5);
            return examples.stream();
        }
    }

    private static String read(Path page) {
        try {
            return Files.readString(page);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    @ParameterizedTest
    @MethodSource("examples")
    void canBeRead(String example) {
        String document = example.contains("kind: ") ? example : REST_OF_A_RULE + example;
        assertThatCode(() -> Document.read(document)).doesNotThrowAnyException();
    }
}
