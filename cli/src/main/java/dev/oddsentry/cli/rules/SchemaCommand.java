package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.common.ServiceCommand;
import java.nio.file.Path;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "schema",
        mixinStandardHelpOptions = true,
        description = "Save the JSON Schema of definition files.",
        footer = {
            "",
            "Example: odd schema --out odd-document.schema.json",
            "         and as the first line of a document: # yaml-language-server: $schema=odd-document.schema.json"
        })
public final class SchemaCommand extends ServiceCommand {
    @Option(
            names = "--out",
            paramLabel = "FILE",
            required = true,
            description = "The file; an existing one is replaced.")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Override
    public Integer call() {
        api().download("/api/schemas/odd-document.schema.json", file);
        out().println("Saved the schema of definition files to " + file + ".");
        return 0;
    }
}
