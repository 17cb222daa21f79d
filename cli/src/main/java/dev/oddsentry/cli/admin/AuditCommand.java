package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.AuditEntry;
import dev.oddsentry.contract.AuditPage;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;

@Command(
        name = "audit",
        mixinStandardHelpOptions = true,
        description = {
            "Show who did what, newest first (operators, auditors).",
            "The latest 100, or all of them into a file."
        },
        footer = {"", "Example: odd audit --by ines --kind changes --search late-sailings"})
public final class AuditCommand extends ServiceCommand {
    private static final List<String> KINDS = List.of("changes", "looks", "log-ins");

    @Option(names = "--by", paramLabel = "LOGIN", description = "What this user did.")
    @Nullable
    String by;

    @Option(names = "--kind", description = "changes, looks (at data) or log-ins. Default: all.")
    @Nullable
    String kind;

    @Option(names = "--search", paramLabel = "TEXT", description = "In what it is about and in the detail.")
    @Nullable
    String sought;

    @Option(names = "--from", paramLabel = "TIME", description = "From this moment on, such as 2026-11-01T00:00:00Z.")
    @Nullable
    String from;

    @Option(names = "--to", paramLabel = "TIME", description = "Before this moment.")
    @Nullable
    String to;

    @Option(
            names = "--file",
            paramLabel = "FILE",
            description = "Write all that match to a file: CSV, or JSON lines if its name ends in .jsonl.")
    @Nullable
    Path file;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        var asked = new LinkedHashMap<String, @Nullable String>();
        asked.put("by", by);
        asked.put("kind", kind == null ? null : kindCode(kind));
        asked.put("q", sought);
        asked.put("from", from);
        asked.put("to", to);
        if (file != null) {
            String form = file.toString().endsWith(".jsonl") ? ".jsonl" : ".csv";
            api().download("/api/audit" + form + Api.query(asked), file);
            out().println("Wrote " + file + ".");
            return 0;
        }
        List<AuditEntry> entries =
                api().get("/api/audit" + Api.query(asked), AuditPage.class).entries();
        output.print(out(), entries, () -> table(entries), "Nothing matches.");
        return 0;
    }

    private String kindCode(String written) {
        String kind = written.strip().toLowerCase(Locale.ROOT);
        if (KINDS.contains(kind)) return kind.toUpperCase(Locale.ROOT).replace('-', '_');
        throw new ParameterException(
                spec().commandLine(), "\"" + written + "\" is not one of " + String.join(", ", KINDS) + ".");
    }

    private static Listing table(List<AuditEntry> entries) {
        var table = new Listing("At", "By", "Act", "About", "Detail");
        for (var entry : entries)
            table.add(
                    Words.time(entry.at()),
                    Words.or(entry.login(), "–"),
                    entry.act().toLowerCase(Locale.ROOT).replace('_', ' '),
                    entry.subject(),
                    Objects.requireNonNullElse(entry.detail(), ""));
        return table;
    }
}
