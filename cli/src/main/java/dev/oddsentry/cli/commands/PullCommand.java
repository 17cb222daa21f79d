package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.output.Words;
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
import tools.jackson.databind.JsonNode;

@Command(
        name = "pull",
        mixinStandardHelpOptions = true,
        description = {
            "Saves definitions of the service as documents in a folder, as NAME.KIND.yaml, and notes their revisions for a later push.",
            "A file that was edited here is replaced only with --replace."
        },
        footer = {
            "",
            "Example: odd pull definitions",
            "         odd pull definitions rule/late-sailings query/sailings-lately"
        })
public final class PullCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "FOLDER", description = "Made where it is not there.")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    @Parameters(index = "1..*", paramLabel = "KIND/NAME", description = "Only these; everything if none is named.")
    @SuppressWarnings("NullAway.Init")
    List<String> only = new ArrayList<>();

    @Option(names = "--replace", description = "Replace files that were edited here, too.")
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
        for (JsonNode each : api.get("/api/definitions")) {
            String kind = each.path("kind").asString("");
            String name = each.path("name").asString("");
            String key = kind + "/" + name;
            missing.remove(key);
            if (!only.isEmpty() && !only.contains(key)) continue;
            String text = api.text("/api/definitions/" + Api.part(kind) + "/" + Api.part(name));
            Path file = folder.resolve(Documents.fileName(kind, name));
            String before = Files.exists(file) ? read(file) : null;
            int revision = each.path("revision").asInt(0);
            if (Objects.equals(before, text)) same++;
            else if (before != null && !replace && isEdited(api, key, pulled.get(key), before)) {
                err().println(file + " was edited here and differs from revision " + revision
                        + "; it is left as it is. See: odd diff " + file);
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
                + " were the same" + (kept > 0 ? ", " + kept + " left as they are" : "") + ".");
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
