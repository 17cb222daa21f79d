package dev.oddsentry.core.definition;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import dev.oddsentry.core.Seeded;
import dev.oddsentry.core.document.YamlPrinter;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The schema, by a validator that knows nothing of the readers, allows what they print and refuses what they refuse. */
class DocumentSchemaTest {
    private static final JsonMapper JSON = new JsonMapper();
    private static final Schema SCHEMA = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
            .getSchema(JSON.<JsonNode>valueToTree(DocumentSchema.tree()));

    private static List<?> problems(Object tree) {
        return SCHEMA.validate(JSON.<JsonNode>valueToTree(tree));
    }

    @Test
    void everyDocumentThatIsPrintedFits() {
        Seeded.cases(2000, random -> {
            var definition = Document.read(YamlPrinter.print(new RandomDocuments(random).any()))
                    .definition();
            assertThat(problems(Document.tree(definition)))
                    .as(Document.print(definition))
                    .isEmpty();
        });
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{\"kind\": \"rule\", \"name\": \"late\", \"query\": \"sailings\", \"memory\": {\"key\": [\"a\"]}}",
                "{\"kind\": \"rule\", \"name\": \"Late\", \"owner\": \"Traffic\", \"query\": \"sailings\", \"memory\": {\"key\": [\"a\"]}}",
                "{\"kind\": \"rule\", \"name\": \"late\", \"owner\": \"Traffic\", \"query\": \"sailings\", \"memory\": {\"key\": [\"a\"], \"keys\": []}}",
                "{\"kind\": \"rule\", \"name\": \"late\", \"owner\": \"Traffic\", \"query\": \"sailings\", \"memory\": {\"key\": [\"a\"]}, \"limits\": {\"retries\": 21}}",
                "{\"kind\": \"rule\", \"name\": \"late\", \"owner\": \"Traffic\", \"query\": \"sailings\", \"memory\": {\"key\": [\"a\"]}, \"delivery\": {\"show\": \"all\"}}",
                "{\"kind\": \"query\", \"name\": \"sailings\", \"source\": \"ferry\"}",
                "{\"kind\": \"round-up\", \"name\": \"week\", \"owner\": \"Traffic\", \"rules\": [\"late\"], \"to\": []}",
                "{\"kind\": \"voyage\", \"name\": \"late\"}",
            })
    void whatTheReadersRefuseDoesNotFit(String json) {
        assertThatThrownBy(() -> Document.read(json)).isInstanceOf(InvalidDefinitionException.class);
        assertThat(problems(JSON.readValue(json, Map.class))).isNotEmpty();
    }
}
