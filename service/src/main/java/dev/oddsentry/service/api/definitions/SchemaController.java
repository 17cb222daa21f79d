package dev.oddsentry.service.api.definitions;

import dev.oddsentry.core.definition.DocumentSchema;
import java.util.Map;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** The JSON Schema of definition files, for editors; the readers of {@code core} remain the ones who decide. */
@RestController
class SchemaController {
    @GetMapping(path = "/api/schemas/odd-document.schema.json", produces = "application/schema+json")
    Map<String, Object> getDefinitionSchema() {
        return DocumentSchema.tree();
    }
}
