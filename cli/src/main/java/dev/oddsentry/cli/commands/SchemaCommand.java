package dev.oddsentry.cli.commands;

import java.nio.file.Path;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "schema",
        mixinStandardHelpOptions = true,
        description =
                "Saves the JSON Schema of documents, so that an editor completes and checks them while they are written.",
        footer = {
            "",
            "Example: odd schema --out odd-document.schema.json",
            "         and as the first line of a document: # yaml-language-server: $schema=odd-document.schema.json"
        })
public final class SchemaCommand extends ServiceCommand {
    @Option(names = "--out", paramLabel = "FILE", required = true, description = "The file; replaced if it is there.")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Override
    public Integer call() {
        api().download("/api/schemas/odd-document.schema.json", file);
        out().println("Saved the schema of documents to " + file + ".");
        return 0;
    }
}
