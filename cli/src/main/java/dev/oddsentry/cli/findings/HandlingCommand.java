package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.common.CopyOption;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.HandlingResult;
import java.util.LinkedHashMap;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** A command that marks one finding, named by the values of its key. */
abstract class HandlingCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    private RuleArgument rule;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    private CopyOption copy;

    @Parameters(
            index = "1..*",
            arity = "1..*",
            paramLabel = "KEY",
            description = "Values of the key columns, in their order; \"missing\" if one has none.")
    @SuppressWarnings("NullAway.Init")
    private List<String> key;

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
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("key", key);
        body.put("copy", copy.key());
        body.put("kind", kind());
        body.put("note", note);
        body.put("until", until);
        body.put("withdraw", withdraw);
        HandlingResult marked = api().post(rule.path("/handling"), body, HandlingResult.class);
        if (json) OutputOptions.printJson(out(), marked);
        else
            out().println(String.join(", ", key)
                    + (withdraw ? " is no longer " : " is ")
                    + done()
                    + (until == null || withdraw ? "." : " until " + until + "."));
        return 0;
    }
}
