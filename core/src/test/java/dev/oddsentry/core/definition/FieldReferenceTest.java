package dev.oddsentry.core.definition;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.Part;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** The reference page lists the fields that there are. {@code -Dodd.write-docs=true} writes it again. */
class FieldReferenceTest {
    private static final Path PAGE = Path.of("../docs/fields.md");
    private static final String INTRODUCTION = """
            # The fields of definitions

            Every field of a definition file, from the tables that read and write them (made by a test; do not edit by hand).
            [Definitions](documents.md) explains them with examples. A field that is left out has its default; **bold** fields are required.
            """;

    @Test
    void thePageSaysWhatTheTablesSay() throws IOException {
        if (Boolean.getBoolean("odd.write-docs")) Files.writeString(PAGE, page());
        else assertThat(Files.readString(PAGE)).isEqualTo(page());
    }

    static Stream<Field<?, ?>> fields() {
        return DocumentSchema.parts().stream().flatMap(part -> part.fields().stream());
    }

    @ParameterizedTest
    @MethodSource("fields")
    void eachFieldIsExplainedInASentence(Field<?, ?> field) {
        assertThat(field.help()).as(field.name()).hasSizeLessThan(200).matches("[A-Z`].*[.]");
        assertThat(field.type().shape().words()).as(field.name()).isNotBlank();
    }

    private static String page() {
        return DocumentSchema.parts().stream()
                .map(FieldReferenceTest::section)
                .collect(Collectors.joining("", INTRODUCTION, ""));
    }

    private static String section(Part<?> part) {
        return part.fields().stream()
                .map(FieldReferenceTest::line)
                .collect(Collectors.joining(
                        "",
                        "\n## " + part.name() + "\n\n" + part.help()
                                + "\n\n| field | value | default | meaning |\n|---|---|---|---|\n",
                        ""));
    }

    private static String line(Field<?, ?> field) {
        String name = field.isRequired() ? "**`" + field.name() + "`**" : "`" + field.name() + "`";
        return "| " + name + " | " + cell(field.type().shape().words()) + " | " + cell(field.usualWords()) + " | "
                + cell(field.help()) + " |\n";
    }

    private static String cell(String text) {
        return text.replace("|", "\\|");
    }
}
