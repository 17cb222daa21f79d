package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.HandlingResult;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "note",
        mixinStandardHelpOptions = true,
        description = "Add a note to a finding, such as what was done about it.",
        footer = {"", "Example: odd note late-sailings 48211 --text \"The terminal sends the reason tonight.\""})
public final class NoteCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    private FindingArgument finding;

    @Option(names = "--text", paramLabel = "TEXT", required = true, description = "The note, max 2000 characters.")
    @SuppressWarnings("NullAway.Init")
    private String text;

    @Override
    public Integer call() {
        var body = finding.body();
        body.put("note", text);
        api().post(finding.path("/handling/notes"), body, HandlingResult.class);
        out().println("Note added to " + finding.words() + ".");
        return 0;
    }
}
