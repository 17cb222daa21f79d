package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.common.Documents;
import dev.oddsentry.cli.common.ExitStatus;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.LineDifferences;
import dev.oddsentry.cli.output.ProblemText;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.DraftPreview;
import dev.oddsentry.contract.PreviewComparison;
import dev.oddsentry.contract.QueryEffectView;
import dev.oddsentry.contract.Review;
import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.json.JsonMapper;
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
    private static final JsonMapper JSON = new JsonMapper();

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
        Review review = Documents.review(api, text);
        boolean refused = errors(review);
        invalid |= refused;
        String before = Words.or(review.before(), "");
        String after = Words.or(review.text(), "");
        boolean isNew = review.before() == null && !after.isEmpty();
        boolean differs = isNew || !before.equals(after);
        var moved = effect && !refused && differs && !isNew ? moved(api, review, text) : null;
        if (json) {
            ObjectNode tree = JSON.valueToTree(review);
            tree.put("file", file.toString()).put("differs", differs);
            if (moved != null) tree.set("moved", JSON.valueToTree(moved.answer()));
            out().println(tree);
            return differs || refused;
        }
        for (var problem : review.problems())
            ProblemText.lines(problem, file.toString(), text).forEach(err()::println);
        if (refused) err().println(file + " is not a valid definition.");
        if (!differs) return refused;
        String what = Words.or(review.kind(), "") + " " + Words.or(review.name(), "");
        if (isNew) {
            out().println(file + ": " + what + " is new.");
            return true;
        }
        out().println(file + ": " + what + " differs from revision " + review.revision() + ".");
        LineDifferences.lines(before, after).forEach(line -> out().println("  " + line));
        PushCommand.effect(Words.or(review.effect(), ""), false).ifPresent(out()::println);
        if (moved != null) moved.lines().forEach(out()::println);
        return true;
    }

    private static boolean errors(Review review) {
        for (var problem : review.problems()) if (!problem.weight().equals("WARNING")) return true;
        return false;
    }

    /** What the service answered about the effect, and the same in lines. */
    private record Moved(Object answer, List<String> lines) {}

    /** What the edit would find and no longer find, for a rule itself or for each rule of a query. */
    private @Nullable Moved moved(Api api, Review review, String text) {
        try {
            return switch (Words.or(review.kind(), "")) {
                case "rule" -> {
                    var preview = api.postText("/api/preview", text, "application/yaml", DraftPreview.class);
                    yield new Moved(preview, lines(preview));
                }
                case "query" -> {
                    var rules = api.postText("/api/query-effect", text, "application/yaml", QueryEffectView.class);
                    yield new Moved(rules, lines(rules));
                }
                default -> null;
            };
        } catch (ApiException failed) {
            if (failed.isAboutAccess()) throw failed;
            err().println("  The effect could not be calculated. " + failed.getMessage());
            return null;
        }
    }

    private static List<String> lines(DraftPreview preview) {
        return preview.compared() == null
                ? List.of()
                : List.of("  Now: " + compared(preview.compared()) + "; a check would report "
                        + preview.draft().wouldReport() + ".");
    }

    private static List<String> lines(QueryEffectView effect) {
        return effect.rules().stream()
                .map(rule -> "  " + rule.rule() + ": "
                        + (rule.compared() == null ? Words.or(rule.refused(), "") : compared(rule.compared())))
                .toList();
    }

    private static String compared(PreviewComparison compared) {
        long other = compared.otherSeverity();
        return compared.onlyDraftCount() + " more" + some(compared.onlyDraft()) + ", "
                + compared.onlyActiveCount() + " fewer" + some(compared.onlyActive()) + ", "
                + compared.both() + " as before"
                + (other == 0 ? "" : ", " + other + " of them with another severity");
    }

    private static String some(List<String> texts) {
        if (texts.isEmpty()) return "";
        return " (" + String.join("; ", texts.subList(0, Math.min(3, texts.size()))) + (texts.size() > 3 ? " …" : "")
                + ")";
    }
}
