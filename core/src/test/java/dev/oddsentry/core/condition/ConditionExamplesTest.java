package dev.oddsentry.core.condition;

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

/** Each piece of a condition in the first column of a table of docs/conditions.md can be read as it is written. */
class ConditionExamplesTest {
    private static final Pattern FIRST_CELL = Pattern.compile("(?m)^\\| ([^|]*(?:\\\\\\|[^|]*)*) \\|");
    private static final Pattern CODE = Pattern.compile("`([^`]+)`");
    /** Signs and names of arguments, which are no conditions. */
    private static final Pattern NO_EXAMPLE = Pattern.compile(
            ".*….*|and|or|not|like|[%_]|\\( \\)|[-+*/=<>| \\\\]+|-- .*|.*\\((?:number|text|date|instant).*|.*timestamp\\)|timestamp, .*|timestamp, date");

    static Stream<String> examples() throws IOException {
        String page = Files.readString(Path.of("../docs/conditions.md"));
        List<String> examples = FIRST_CELL
                .matcher(page)
                .results()
                .flatMap(cell -> CODE.matcher(cell.group(1)).results().map(code -> code.group(1)))
                .filter(code -> !NO_EXAMPLE.matcher(code).matches())
                .distinct()
                .toList();
        assertThat(examples).hasSizeGreaterThan(40);
        return examples.stream();
    }

    @ParameterizedTest
    @MethodSource("examples")
    void canBeRead(String example) {
        String whole = example.matches("(in|older|like|matches|is) .*") ? "x " + example : example;
        assertThatCode(() -> Parser.parse(whole, new TextPositions(whole)))
                .as(whole)
                .doesNotThrowAnyException();
    }
}
