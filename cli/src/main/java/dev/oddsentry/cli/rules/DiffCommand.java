package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.common.Documents;
import dev.oddsentry.cli.common.ExitStatus;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.LineDifferences;
import dev.oddsentry.cli.output.ProblemText;
import dev.oddsentry.cli.output.Words;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

@Command(
        name = "diff",
        mixinStandardHelpOptions = true,
        description = {
            "Compare definition files with what is saved.",
            "Exit status 0: nothing differs. 1: something differs. 4: a file is not a valid definition."
        },
        footer = {"", "Example: odd diff definitions --effect"})
public final class DiffCommand extends ServiceCommand {
    @Parameters(paramLabel = "FILE", arity = "1..*", description = "Definition files, or folders of them.")
    @SuppressWarnings("NullAway.Init")
    List<Path> files;

    @Option(names = "--effect", description = "Also read the sources and compare the exceptions of each edit.")
    boolean effect;

    @Option(names = "--json", description = "One JSON object per file, one per line.")
    boolean json;

    private boolean invalid;

    @Override
    public Integer call() {
        Api api = api();
        boolean differs = false;
        invalid = false;
        var all = Documents.in(files);
        for (int i = 0; i < all.size(); i++) {
            if (effect && all.size() > 1) err().println((i + 1) + " of " + all.size() + ": " + all.get(i));
            differs |= tell(api, all.get(i));
        }
        if (!differs && !json) out().println("Nothing differs: " + Words.count(all.size(), "file", "files") + ".");
        return invalid ? ExitStatus.INVALID : differs ? ExitStatus.NO : ExitStatus.DONE;
    }

    /** @return whether it differs, or could not be saved */
    private boolean tell(Api api, Path file) {
        String text = read(file);
        JsonNode review = Documents.review(api, text);
        boolean refused = errors(review);
        invalid |= refused;
        String before = review.path("before").asString("");
        String after = review.path("text").asString("");
        boolean isNew = review.path("before").isNull() && !after.isEmpty();
        boolean differs = isNew || !before.equals(after);
        JsonNode moved = effect && !refused && differs && !isNew ? moved(api, review, text) : null;
        if (json) {
            var tree = (ObjectNode) review;
            tree.put("file", file.toString()).put("differs", differs);
            if (moved != null) tree.set("moved", moved);
            out().println(tree);
            return differs || refused;
        }
        for (JsonNode problem : review.path("problems"))
            ProblemText.lines(problem, file.toString(), text).forEach(err()::println);
        if (refused) err().println(file + " is not a valid definition.");
        if (!differs) return refused;
        String what =
                review.path("kind").asString("") + " " + review.path("name").asString("");
        if (isNew) {
            out().println(file + ": " + what + " is new.");
            return true;
        }
        out().println(file + ": " + what + " differs from revision " + review.path("revision") + ".");
        LineDifferences.lines(before, after).forEach(line -> out().println("  " + line));
        PushCommand.effect(review.path("effect").asString(""), false).ifPresent(out()::println);
        if (moved != null) movedLines(moved).forEach(out()::println);
        return true;
    }

    private static boolean errors(JsonNode review) {
        for (JsonNode problem : review.path("problems"))
            if (!problem.path("weight").asString("").equals("WARNING")) return true;
        return false;
    }

    /** What the edit would find and no longer find, for a rule itself or for each rule of a query. */
    private @Nullable JsonNode moved(Api api, JsonNode review, String text) {
        try {
            return switch (review.path("kind").asString("")) {
                case "rule" -> api.postText("/api/preview", text, "application/yaml");
                case "query" -> api.postText("/api/query-effect", text, "application/yaml");
                default -> null;
            };
        } catch (ApiException failed) {
            if (failed.isAboutAccess()) throw failed;
            err().println("  The effect could not be calculated. " + failed.getMessage());
            return null;
        }
    }

    private static List<String> movedLines(JsonNode moved) {
        var lines = new ArrayList<String>();
        if (moved.has("rules")) {
            for (JsonNode rule : moved.path("rules"))
                lines.add("  " + rule.path("rule").asString("") + ": "
                        + (rule.path("compared").isNull()
                                ? rule.path("refused").asString("")
                                : compared(rule.path("compared"))));
        } else if (!moved.path("compared").isNull()) {
            lines.add("  Now: " + compared(moved.path("compared")) + "; a check would report "
                    + moved.path("draft").path("wouldReport") + ".");
        }
        return lines;
    }

    private static String compared(JsonNode compared) {
        long other = compared.path("otherSeverity").asLong(0);
        return compared.path("onlyDraftCount") + " more" + some(compared.path("onlyDraft")) + ", "
                + compared.path("onlyActiveCount") + " fewer" + some(compared.path("onlyActive")) + ", "
                + compared.path("both") + " as before"
                + (other == 0 ? "" : ", " + other + " of them with another severity");
    }

    private static String some(JsonNode identities) {
        var texts = Words.texts(identities);
        if (texts.isEmpty()) return "";
        return " (" + String.join("; ", texts.subList(0, Math.min(3, texts.size()))) + (texts.size() > 3 ? " …" : "")
                + ")";
    }
}
