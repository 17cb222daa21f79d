package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.common.Documents;
import dev.oddsentry.cli.common.ExitStatus;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.ProblemText;
import dev.oddsentry.contract.Saved;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "push",
        mixinStandardHelpOptions = true,
        description = {
            "Save definition files as new revisions.",
            "Stops at the first file that is refused. A definition that someone saved since you pulled it is not overwritten."
        },
        footer = {
            "",
            "Example: odd push sailings.query.yaml late-sailings.rule.yaml --reason \"wider window\"",
            "         odd push definitions --reason \"summer timetable\""
        })
public final class PushCommand extends ServiceCommand {
    @Parameters(paramLabel = "FILE", arity = "1..*", description = "Definition files, or folders of them.")
    @SuppressWarnings("NullAway.Init")
    List<Path> files;

    @Option(
            names = "--reason",
            paramLabel = "TEXT",
            defaultValue = "",
            description = "Reason, stored with the revision.")
    @SuppressWarnings("NullAway.Init")
    String reason;

    @Option(names = "--treat-as-known", description = "Treat what the edited rules find as known; it is not reported.")
    boolean treatAsKnown;

    @Option(names = "--force", description = "Overwrite what someone else saved since you pulled these files.")
    boolean force;

    @Option(names = "--json", description = "The saved definitions as JSON, one per line.")
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
                Saved saved = api.putText(
                        "/api/definitions?reason=" + Api.part(reason) + (treatAsKnown ? "&treatAsKnown=true" : "")
                                + (seen == null ? "" : "&revision=" + seen),
                        text,
                        Saved.class);
                tell(file, text, saved);
                if (pulled.containsKey(key)) {
                    pulled.put(key, saved.revision());
                    Documents.note(Documents.folderOf(file), pulled);
                }
            } catch (ApiException refused) {
                if (refused.isAboutAccess()) throw refused;
                spec().commandLine()
                        .getErr()
                        .println(ProblemText.of(refused, file.toString(), text) + " " + file + " was not saved.");
                return ExitStatus.of(refused);
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
    static Optional<String> effect(String effect, boolean treatAsKnown) {
        String found = treatAsKnown ? "what it finds is treated as known" : "what it finds is reported";
        return switch (effect) {
            case "OTHER_WATCHED_COLUMNS" ->
                Optional.of(
                        "  Other columns are watched: the next check records their values and does not report that they differ.");
            case "OTHER_CONDITIONS" ->
                Optional.of("  The conditions changed: the next check evaluates again; " + found
                        + ". Findings that are no longer exceptions clear without a message.");
            case "OTHER_KEY_COLUMNS" ->
                Optional.of("  The key columns changed: all findings start over; " + found
                        + ". Old findings clear without a message.");
            case "OTHER_AUDIENCES" -> Optional.of("  The audiences changed: existing findings are treated as known.");
            default -> Optional.empty();
        };
    }

    /** Those who hear from now on, and how they learn what is open already. */
    static List<String> added(Saved saved) {
        String rule = saved.name();
        return saved.added().stream()
                .map(address ->
                        "  " + address + " is sent only updates from now on. To send the open findings: odd send-open "
                                + rule + " " + address + " mails what is open already.")
                .toList();
    }

    private void tell(Path file, String text, Saved saved) {
        for (var warning : saved.warnings()) {
            ProblemText.lines(warning, file.toString(), text).forEach(err()::println);
        }
        if (json) {
            out().println(saved);
            return;
        }
        String what = saved.kind() + " " + saved.name();
        boolean changed = saved.changed();
        spec().commandLine()
                .getOut()
                .println(
                        changed
                                ? "Saved " + what + " as revision " + saved.revision() + "."
                                : what + " is unchanged at revision " + saved.revision() + ".");
        effect(saved.effect(), treatAsKnown).ifPresent(err()::println);
        added(saved).forEach(err()::println);
    }
}
