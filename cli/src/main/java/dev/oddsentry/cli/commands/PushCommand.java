package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.output.ProblemText;
import dev.oddsentry.cli.output.Words;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "push",
        mixinStandardHelpOptions = true,
        description =
                "Saves documents, in the order given, those of a folder so that what others name comes first; each is a new revision."
                        + " Stops at the first that is refused. One that was pulled and that somebody saved since is not overwritten.",
        footer = {
            "",
            "Example: odd push sailings.query.yaml late-sailings.rule.yaml --remark \"wider window\"",
            "         odd push definitions --remark \"summer timetable\""
        })
public final class PushCommand extends ServiceCommand {
    @Parameters(
            paramLabel = "FILE",
            arity = "1..*",
            description =
                    "YAML documents: queries, rules, thresholds, calendars, layouts, round-ups; or folders of them.")
    @SuppressWarnings("NullAway.Init")
    List<Path> files;

    @Option(names = "--remark", paramLabel = "TEXT", defaultValue = "", description = "Why; kept with the revision.")
    @SuppressWarnings("NullAway.Init")
    String remark;

    @Option(
            names = "--as-known",
            description =
                    "What an edit of a rule's conditions or key makes the next check find is taken as known, not mailed.")
    boolean asKnown;

    @Option(names = "--force", description = "Save over what somebody else saved since these documents were pulled.")
    boolean force;

    @Option(names = "--json", description = "What was saved, as JSON, one document a line.")
    boolean json;

    @Override
    public Integer call() {
        Api api = api();
        for (Path file : Documents.in(files)) {
            String text = read(file);
            var pulled = Documents.pulled(Documents.folderOf(file));
            String key = keyOf(file);
            try {
                Integer seen = force ? null : pulled.get(key);
                JsonNode saved = api.putText(
                        "/api/definitions?remark=" + Api.part(remark) + (asKnown ? "&asKnown=true" : "")
                                + (seen == null ? "" : "&seen=" + seen),
                        text);
                tell(file, text, saved);
                if (pulled.containsKey(key)) {
                    pulled.put(key, saved.path("revision").asInt(0));
                    Documents.note(Documents.folderOf(file), pulled);
                }
            } catch (ApiException refused) {
                if (refused.isAboutAccess()) throw refused;
                spec().commandLine()
                        .getErr()
                        .println(ProblemText.of(refused, file.toString(), text) + " " + file + " was not saved.");
                return 1;
            }
        }
        return 0;
    }

    /** {@code rule/late-sailings} of {@code late-sailings.rule.yaml}. */
    private static String keyOf(Path file) {
        String[] part = String.valueOf(file.getFileName()).split("\\.");
        return part.length < 3 ? "" : part[part.length - 2] + "/" + part[0];
    }

    /** What the edit does to what the rule remembers. */
    static Optional<String> effect(String effect, boolean asKnown) {
        String found = asKnown ? "what it finds is taken as known" : "what it finds is told";
        return switch (effect) {
            case "RE_BASE" ->
                Optional.of("  The next check takes the watched values as they are, without news of that.");
            case "RE_JUDGE" ->
                Optional.of("  The next check judges anew: " + found
                        + "; what is no longer asked for clears without a mail.");
            case "NEW_IDENTITY" ->
                Optional.of("  The next check starts anew under the new key: " + found
                        + "; what was found under the old one clears without a mail.");
            case "NEW_AUDIENCES" -> Optional.of("  Those who hear from now on take what is there as known.");
            default -> Optional.empty();
        };
    }

    /** Those who hear from now on, and how they learn what is open already. */
    static List<String> added(JsonNode saved) {
        String rule = saved.path("name").asString("");
        return Words.texts(saved.path("added")).stream()
                .map(address -> "  " + address + " hears what is new from now on; odd send-open " + rule + " " + address
                        + " mails what is open already.")
                .toList();
    }

    private void tell(Path file, String text, JsonNode saved) {
        for (JsonNode warning : saved.path("warnings")) {
            ProblemText.lines(warning, file.toString(), text).forEach(err()::println);
        }
        if (json) {
            out().println(saved);
            return;
        }
        String what = saved.path("kind").asString("") + " " + saved.path("name").asString("");
        boolean changed = saved.path("changed").asBoolean(false);
        spec().commandLine()
                .getOut()
                .println(
                        changed
                                ? "Saved " + what + " as revision " + saved.path("revision") + "."
                                : what + " is unchanged at revision " + saved.path("revision") + ".");
        effect(saved.path("effect").asString(""), asKnown).ifPresent(err()::println);
        added(saved).forEach(err()::println);
    }
}
