package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.contract.FindingSummaryList;
import dev.oddsentry.contract.ManyHandled;
import java.util.LinkedHashMap;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;

@Command(
        name = "handle",
        mixinStandardHelpOptions = true,
        description = {
            "Take, snooze, accept or note all findings that match a filter.",
            "Without --apply, shows how many findings match and changes nothing."
        },
        footer = {
            "",
            "Example: odd handle take --rule late-sailings --severity critical --note \"Calling Holm\"",
            "         odd handle snooze --find Holm --until 2026-12-24 --apply"
        })
public final class HandleCommand extends ServiceCommand {
    /** What is done with each. */
    enum Act {
        take,
        snooze,
        accept,
        note
    }

    @Parameters(paramLabel = "ACT", description = "take, snooze, accept or note.")
    @SuppressWarnings("NullAway.Init")
    private Act act;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    private FindingFilterOptions filter;

    @Option(names = "--note", paramLabel = "TEXT", defaultValue = "", description = "Note, stored with each finding.")
    @SuppressWarnings("NullAway.Init")
    private String note;

    @Option(
            names = "--until",
            paramLabel = "DATE",
            description = "Until 2026-06-01 or 2026-06-01T09:00 in the zone of each rule. Default: until it clears.")
    private @Nullable String until;

    @Option(names = "--withdraw", description = "Undo it.")
    private boolean withdraw;

    @Option(names = "--apply", description = "Do it.")
    private boolean apply;

    @Option(names = "--json", description = "What was done as JSON.")
    private boolean json;

    @Override
    public Integer call() {
        if (act == Act.note && withdraw)
            throw new ParameterException(spec().commandLine(), "A note cannot be withdrawn.");
        FindingSummaryList found = api().get(filter.path(), FindingSummaryList.class);
        if (!apply) {
            preview(found);
            return 0;
        }
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("filter", filter.values());
        body.put("expected", found.total());
        body.put("kind", act == Act.note ? null : act.name().toUpperCase(Locale.ROOT));
        body.put("note", note);
        body.put("until", until);
        body.put("withdraw", withdraw);
        ManyHandled done = api().post("/api/findings/handling", body, ManyHandled.class);
        if (json) OutputOptions.printJson(out(), done);
        else out().println(words(done));
        return 0;
    }

    private void preview(FindingSummaryList found) {
        if (found.total() == 0) {
            out().println("No findings match.");
            return;
        }
        var table = new Listing("Rule", "Findings");
        found.byRule().forEach((rule, findings) -> table.add(rule, String.valueOf(findings)));
        table.printTable(out());
        out().println(found.total() + (found.total() == 1 ? " finding matches." : " findings match.")
                + " Nothing was changed. Add --apply to " + (withdraw ? "undo " : "") + act
                + (found.total() == 1 ? " it." : " them."));
    }

    private static String words(ManyHandled done) {
        var words =
                new StringBuilder("Done for " + done.handled() + (done.handled() == 1 ? " finding." : " findings."));
        if (done.cleared() > 0)
            words.append(" Already cleared: ").append(done.cleared()).append('.');
        if (done.unchanged() > 0)
            words.append(" Not handled that way: ").append(done.unchanged()).append('.');
        if (done.missing() > 0)
            words.append(" No longer there: ").append(done.missing()).append('.');
        return words.toString();
    }
}
