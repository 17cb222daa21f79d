package dev.oddsentry.service.definitions;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.core.io.ClassPathResource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The published schema and the readers of documents say the same. */
class SchemaTest {
    private static final JsonMapper JSON = new JsonMapper();
    private static final String TEXT = text();

    private static String text() {
        try {
            return new ClassPathResource("schemas/odd-document.schema.json").getContentAsString(StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static Stream<Path> demoDocuments() throws IOException {
        return Files.list(Path.of("../demo/definitions"))
                .filter(file -> file.toString().endsWith(".yaml"))
                .sorted();
    }

    @ParameterizedTest
    @MethodSource("demoDocuments")
    void everyDocumentOfTheDemoFitsIt(Path file) throws IOException {
        var schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(TEXT);
        var tree = Document.tree(Document.read(Files.readString(file)).definition());
        assertThat(schema.validate(JSON.<JsonNode>valueToTree(tree))).isEmpty();
    }

    /** The other way round: what it offers is known to the readers. */
    @ParameterizedTest
    @ValueSource(strings = {"query", "rule", "threshold", "calendar", "layout", "round-up"})
    void everyFieldThatItOffersIsKnown(String kind) {
        var properties = JSON.readTree(TEXT).path("$defs").path(kind).path("properties");
        var unknown = new ArrayList<String>();
        properties.properties().forEach(field -> {
            unknown.addAll(unknown(kind, "\"" + field.getKey() + "\": null"));
            field.getValue()
                    .path("properties")
                    .properties()
                    .forEach(inner -> unknown.addAll(
                            unknown(kind, "\"" + field.getKey() + "\": { \"" + inner.getKey() + "\": null }")));
        });
        assertThat(unknown).isEmpty();
    }

    private static List<String> unknown(String kind, String field) {
        if (field.startsWith("\"kind\"") || field.startsWith("\"name\"")) return List.of();
        try {
            Document.read("kind: " + kind + "\nname: some\n" + field + "\n");
            return List.of();
        } catch (InvalidDefinitionException refused) {
            return refused.problems().stream()
                    .map(Problem::message)
                    .filter(message -> message.startsWith("unknown field"))
                    .map(message -> field + ": " + message)
                    .toList();
        }
    }
}
