package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.HandlingResult;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/** A command that marks one finding, named by the values of its key. */
abstract class HandlingCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    private FindingArgument finding;

    @Option(names = "--note", paramLabel = "TEXT", defaultValue = "", description = "Note, stored with the finding.")
    @SuppressWarnings("NullAway.Init")
    private String note;

    @Option(
            names = "--until",
            paramLabel = "DATE",
            description = "Until 2026-06-01 or 2026-06-01T09:00 in the rule's zone. Default: until it clears.")
    private @Nullable String until;

    @Option(names = "--withdraw", description = "Undo it.")
    private boolean withdraw;

    @Option(names = "--json", description = "The finding's handling as JSON.")
    private boolean json;

    /** TAKE, SNOOZE or ACCEPT. */
    abstract String kind();

    abstract String done();

    @Override
    public final Integer call() {
        var body = finding.body();
        body.put("kind", kind());
        body.put("note", note);
        body.put("until", until);
        body.put("withdraw", withdraw);
        HandlingResult marked = api().post(finding.path("/handling"), body, HandlingResult.class);
        if (json) OutputOptions.printJson(out(), marked);
        else
            out().println(finding.words()
                    + (withdraw ? " is no longer " : " is ")
                    + done()
                    + (until == null || withdraw ? "." : " until " + until + "."));
        return 0;
    }
}
