package dev.oddsentry.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** The reference page lists the functions that there are. {@code -Dodd.write-docs=true} writes it again. */
class FunctionReferenceTest {
    private static final Path PAGE = Path.of("../docs/conditions.md");
    private static final String BEGIN = "<!-- functions -->\n";
    private static final String END = "<!-- end of functions -->";

    @Test
    void thePageSaysWhatTheTableSays() throws IOException {
        String page = Files.readString(PAGE);
        int from = page.indexOf(BEGIN) + BEGIN.length();
        int until = page.indexOf(END);
        if (Boolean.getBoolean("odd.write-docs"))
            Files.writeString(PAGE, page.substring(0, from) + table() + page.substring(until));
        else assertThat(page.substring(from, until)).isEqualTo(table());
    }

    private static String table() {
        return FunctionTable.all().stream()
                .map(each -> "| `" + each.usage().replace(" or ", "`, `") + "` | "
                        + each.gives().code() + " | " + each.meaning() + " |\n")
                .collect(Collectors.joining("", "| function | gives | meaning |\n|---|---|---|\n", ""));
    }
}
