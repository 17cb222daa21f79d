package dev.oddsentry.service.api.definitions;

import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** The JSON Schema of documents, for editors; the readers of {@code core} remain the ones who decide. */
@RestController
class SchemaController {
    @GetMapping(path = "/api/schemas/odd-document.schema.json", produces = "application/schema+json")
    Resource getDefinitionSchema() {
        return new ClassPathResource("schemas/odd-document.schema.json");
    }
}
