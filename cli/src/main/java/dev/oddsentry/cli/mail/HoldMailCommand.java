package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.EndedHold;
import dev.oddsentry.contract.Hold;
import java.util.HashMap;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;

@Command(
        name = "hold-mail",
        mixinStandardHelpOptions = true,
        description = {"List mail holds; hold, release or discard mail.", "Checks go on while mail is held."},
        footer = {
            "",
            "Example: odd hold-mail --rule late-sailings --reason \"the timetable is wrong today\"",
            "         odd hold-mail",
            "         odd hold-mail --release 3"
        })
public final class HoldMailCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    /** One thing at a time. */
    static final class Act {
        @Option(names = "--all", description = "Hold all mail (operators).")
        boolean all;

        @Option(
                names = "--source",
                paramLabel = "SOURCE",
                description = "Hold mail of the rules on this source (operators).")
        @Nullable
        String source;

        @Option(names = "--rule", paramLabel = "RULE", description = "Hold mail of this rule.")
        @Nullable
        String rule;

        @Option(names = "--release", paramLabel = "NUMBER", description = "End this hold and send the held messages.")
        @Nullable
        Long release;

        @Option(
                names = "--discard",
                paramLabel = "NUMBER",
                description = "End this hold and discard the held messages.")
        @Nullable
        Long throwAway;
    }

    @ArgGroup
    @Nullable
    Act act;

    @Option(names = "--reason", paramLabel = "TEXT", description = "Reason for the hold, shown to other users.")
    @Nullable
    String why;

    @Override
    public Integer call() {
        if (act != null && act.release != null) return end(act.release, false);
        if (act != null && act.throwAway != null) return end(act.throwAway, true);
        List<Hold> holds = act == null ? api().list("/api/holds", Hold.class) : hold(act);
        output.print(out(), holds, () -> table(holds), "No mail is held.");
        return 0;
    }

    private List<Hold> hold(Act of) {
        if (why == null || why.isBlank())
            throw new ParameterException(spec().commandLine(), "Give a reason: --reason TEXT");
        var body = new HashMap<String, @Nullable Object>();
        body.put("source", of.source);
        body.put("rule", of.rule);
        body.put("reason", why);
        return api().postForList("/api/holds", body, Hold.class);
    }

    private Integer end(long number, boolean throwAway) {
        EndedHold ended = api().post("/api/holds/" + number + "/end?discard=" + throwAway, null, EndedHold.class);
        int messages = ended.messages();
        String mails = messages == 1 ? "1 message" : messages + " messages";
        out().println("Hold " + number + " is ended; " + mails + (throwAway ? " discarded." : " released."));
        return 0;
    }

    private static Listing table(List<Hold> holds) {
        var table = new Listing(List.of("Hold", "Holds", "Reason", "By", "Since", "Waiting"));
        for (var hold : holds) {
            String of = hold.rule() != null
                    ? "rule " + Words.or(hold.rule(), "")
                    : hold.source() != null ? "source " + hold.source() : "all mail";
            table.add(List.of(
                    String.valueOf(hold.id()),
                    of,
                    hold.reason(),
                    Words.or(hold.by(), "the service"),
                    Words.time(hold.at()),
                    String.valueOf(hold.messages())));
        }
        return table;
    }
}
