package dev.oddsentry.cli.common;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.contract.Review;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * Documents in files: {@code NAME.KIND.yaml}, and beside those that were pulled a note of the revisions that they were pulled at, so that a
 * push overwrites nobody's save without notice.
 */
public final class Documents {
    private static final JsonMapper JSON =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();
    private static final String NOTE = ".odd-pulled.json";
    private static final Pattern FILE =
            Pattern.compile("(.+)\\.(calendar|query|threshold|layout|recipient-list|rule|round-up)\\.ya?ml");
    /** What others name is saved before them. */
    private static final List<String> ORDER =
            List.of("calendar", "query", "threshold", "layout", "recipient-list", "rule", "round-up");

    private Documents() {}

    public static String fileName(String kind, String name) {
        return name + "." + kind + ".yaml";
    }

    /** Files as they are named, folders as the documents in them, in the order in which they can be saved. */
    public static List<Path> in(List<Path> given) {
        var files = new ArrayList<Path>();
        for (Path each : given) {
            if (Files.isDirectory(each)) files.addAll(inFolder(each));
            else files.add(each);
        }
        return files;
    }

    private static List<Path> inFolder(Path folder) {
        try (var all = Files.list(folder)) {
            return all.filter(
                            file -> FILE.matcher(file.getFileName().toString()).matches())
                    .sorted(Comparator.<Path>comparingInt(file -> ORDER.indexOf(kindOf(file)))
                            .thenComparing(file -> file.getFileName().toString()))
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static String kindOf(Path file) {
        var matcher = FILE.matcher(file.getFileName().toString());
        return matcher.matches() ? matcher.group(2) : "";
    }

    /** The revisions that a folder's documents were pulled at, by {@code kind/name}. */
    public static Map<String, Integer> pulled(Path folder) {
        Path note = folder.resolve(NOTE);
        var pulled = new LinkedHashMap<String, Integer>();
        if (!Files.exists(note)) return pulled;
        try {
            JSON.readTree(Files.readAllBytes(note))
                    .properties()
                    .forEach(each -> pulled.put(each.getKey(), each.getValue().asInt(0)));
            return pulled;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static void note(Path folder, Map<String, Integer> pulled) {
        try {
            Path draft = folder.resolve(NOTE + ".part");
            Files.write(draft, JSON.writeValueAsBytes(pulled));
            Files.move(draft, folder.resolve(NOTE), StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static Path folderOf(Path file) {
        Path parent = file.toAbsolutePath().getParent();
        return parent == null ? Path.of(".") : parent;
    }

    /** What the service would make of a document. */
    public static Review review(Api api, String text) {
        return api.postText("/api/review", text, "application/yaml", Review.class);
    }
}
