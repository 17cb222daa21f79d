package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import picocli.CommandLine;

/** Each command that stands on a line of its own in the documents exists, with these options. */
class DocumentedCommandsTest {
    private static final CommandLine ODD = Odd.whole().setCaseInsensitiveEnumValuesAllowed(true);
    private static final Path ROOT = Path.of("..");
    private static final Pattern LINE = Pattern.compile("^ {4}(?:\\./)?odd (.*)$");
    private static final Pattern WORD = Pattern.compile("\"([^\"]*)\"|(\\S+)");

    static Stream<String> commands() throws IOException {
        var commands = new ArrayList<String>();
        try (var pages = Files.list(ROOT.resolve("docs"))) {
            for (Path page : Stream.concat(Stream.of(ROOT.resolve("README.md")), pages.sorted())
                    .filter(each -> each.toString().endsWith(".md"))
                    .toList())
                for (String line : Files.readAllLines(page)) {
                    var found = LINE.matcher(line);
                    if (found.matches()) commands.add(found.group(1).replaceFirst(" +# .*$", ""));
                }
        }
        assertThat(commands).hasSizeGreaterThan(30);
        return commands.stream();
    }

    @ParameterizedTest
    @MethodSource("commands")
    void isUnderstood(String command) {
        var words = new ArrayList<String>();
        var found = WORD.matcher(command.replaceFirst(" > ~.*$", ""));
        while (found.find()) words.add(found.group(1) == null ? found.group(2) : found.group(1));
        List<String> arguments = List.copyOf(words);
        assertThatCode(() -> ODD.parseArgs(arguments.toArray(String[]::new)))
                .as(command)
                .doesNotThrowAnyException();
    }
}
