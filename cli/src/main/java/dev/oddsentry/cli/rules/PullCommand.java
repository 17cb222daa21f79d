package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.Documents;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.DefinitionSummary;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "pull",
        mixinStandardHelpOptions = true,
        description = {
            "Save definitions as files in a folder.",
            "Files are named NAME.KIND.yaml. Files that you edited are kept unless you add --replace."
        },
        footer = {
            "",
            "Example: odd pull definitions",
            "         odd pull definitions rule/late-sailings query/sailings-lately"
        })
public final class PullCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "FOLDER", description = "The folder; it is created if necessary.")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    @Parameters(index = "1..*", paramLabel = "KIND/NAME", description = "Only these definitions. Default: all.")
    @SuppressWarnings("NullAway.Init")
    List<String> only = new ArrayList<>();

    @Option(names = "--replace", description = "Also replace files that you edited.")
    boolean replace;

    @Override
    public Integer call() {
        Api api = api();
        try {
            Files.createDirectories(folder);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        var pulled = Documents.pulled(folder);
        var missing = new TreeSet<>(only);
        int written = 0;
        int same = 0;
        int kept = 0;
        for (var each : api.list("/api/definitions", DefinitionSummary.class)) {
            String kind = each.kind();
            String name = each.name();
            String key = kind + "/" + name;
            missing.remove(key);
            if (!only.isEmpty() && !only.contains(key)) continue;
            String text = api.text("/api/definitions/" + Api.part(kind) + "/" + Api.part(name));
            Path file = folder.resolve(Documents.fileName(kind, name));
            String before = Files.exists(file) ? read(file) : null;
            int revision = each.revision();
            if (Objects.equals(before, text)) same++;
            else if (before != null && !replace && isEdited(api, key, pulled.get(key), before)) {
                err().println(file + " was edited in the folder and differs from revision " + revision
                        + ". It is kept. Compare with: odd diff " + file);
                kept++;
                continue;
            } else {
                write(file, text);
                written++;
            }
            pulled.put(key, revision);
        }
        Documents.note(folder, pulled);
        for (String key : missing) err().println("There is no " + key.replace('/', ' ') + ".");
        out().println(Words.count(written, "document", "documents") + " written to " + folder + ", " + same
                + " were the same" + (kept > 0 ? ", " + kept + " kept" : "") + ".");
        return missing.isEmpty() && kept == 0 ? 0 : 1;
    }

    /** What stands in the file is not what was pulled: somebody has written it. */
    private static boolean isEdited(Api api, String key, @Nullable Integer revision, String text) {
        if (revision == null) return true;
        String[] part = key.split("/", 2);
        String then =
                api.text("/api/definitions/" + Api.part(part[0]) + "/" + Api.part(part[1]) + "/revisions/" + revision);
        return !then.equals(text);
    }

    private static void write(Path file, String text) {
        try {
            Path draft = file.resolveSibling(file.getFileName() + ".part");
            Files.writeString(draft, text);
            Files.move(draft, file, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
