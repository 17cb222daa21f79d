package dev.oddsentry.service.definitions;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.DocumentSchema;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** The published schema and the readers of documents say the same. */
class SchemaTest {
    private static final JsonMapper JSON = new JsonMapper();
    private static final JsonMapper IN_ORDER = JsonMapper.builder()
            .enable(SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS)
            .build();
    private static final Path FILE = Path.of("../contract/definition.schema.json");
    private static final JsonNode SCHEMA = JSON.valueToTree(DocumentSchema.tree());

    /** The console's types of documents come from the file; {@code -Dodd.write-docs=true} writes it again. */
    @Test
    void theFileIsTheSchemaThatTheServicePublishes() throws IOException {
        String text = IN_ORDER.writerWithDefaultPrettyPrinter().writeValueAsString(DocumentSchema.tree()) + "\n";
        if (Boolean.getBoolean("odd.write-docs")) Files.writeString(FILE, text);
        else assertThat(Files.readString(FILE)).isEqualTo(text);
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
                .getSchema(SCHEMA);
        var tree = Document.tree(Document.read(Files.readString(file)).definition());
        assertThat(schema.validate(JSON.<JsonNode>valueToTree(tree))).isEmpty();
    }

    /** The other way round: what it offers is known to the readers. */
    @ParameterizedTest
    @ValueSource(strings = {"query", "rule", "threshold", "calendar", "layout", "recipient-list", "round-up"})
    void everyFieldThatItOffersIsKnown(String kind) {
        var unknown = new ArrayList<String>();
        fieldsOf(kind).forEach(field -> {
            unknown.addAll(unknown(kind, "\"" + field.getKey() + "\": null"));
            fieldsOf(field.getValue().path("$ref").asString("").replace("#/$defs/", ""))
                    .forEach(inner -> unknown.addAll(
                            unknown(kind, "\"" + field.getKey() + "\": { \"" + inner.getKey() + "\": null }")));
        });
        assertThat(unknown).isEmpty();
    }

    private static Set<Map.Entry<String, JsonNode>> fieldsOf(String part) {
        return SCHEMA.path("$defs").path(part).path("properties").properties();
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
