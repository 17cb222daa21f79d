package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.ReaderChoiceView;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "reader-choices",
        mixinStandardHelpOptions = true,
        description = "List what recipients chose of a rule's messages; end a choice.",
        footer = {
            "",
            "Example: odd reader-choices late-sailings",
            "         odd reader-choices monday --round-up --end per.aune@skerryline.example"
        })
public final class ReaderChoicesCommand extends ServiceCommand {
    @Parameters(paramLabel = "NAME", description = "Name of the rule, or of the round-up.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Option(names = "--round-up", description = "The name is that of a round-up.")
    boolean ofRoundUp;

    @Option(
            names = "--end",
            paramLabel = "ADDRESS",
            description = "Send this address each message again, and now what was kept for it.")
    @Nullable
    String end;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        String path = (ofRoundUp ? "/api/round-ups/" : "/api/rules/") + Api.part(name) + "/reader-choices";
        List<ReaderChoiceView> chosen = end == null
                ? api().list(path, ReaderChoiceView.class)
                : api().deleteForList(path + "/" + Api.part(end), ReaderChoiceView.class);
        output.print(out(), chosen, () -> table(chosen), "Recipients of " + name + " get each message as it is sent.");
        return 0;
    }

    private static Listing table(List<ReaderChoiceView> chosen) {
        var table = new Listing("Address", "Choice", "Next", "Since");
        for (var each : chosen)
            table.add(each.address(), words(each), Words.time(each.nextCollection()), Words.time(each.chosenAt()));
        return table;
    }

    /** What the recipient chose, in one line. */
    static String words(ReaderChoiceView choice) {
        var words = new ArrayList<String>();
        if (choice.pausedUntil() != null) words.add("paused until " + Words.time(choice.pausedUntil()));
        else if (choice.collect() != null) words.add("collected " + choice.collect());
        if (choice.filesByLink()) words.add("files as links");
        return String.join("; ", words);
    }
}
