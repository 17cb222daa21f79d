package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import java.util.HashMap;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import tools.jackson.databind.JsonNode;

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
        JsonNode holds = act == null ? api().get("/api/holds") : hold(act);
        output.print(out(), holds, () -> table(holds), "No mail is held.");
        return 0;
    }

    private JsonNode hold(Act of) {
        if (why == null || why.isBlank())
            throw new ParameterException(spec().commandLine(), "Give a reason: --reason TEXT");
        var body = new HashMap<String, @Nullable Object>();
        body.put("source", of.source);
        body.put("rule", of.rule);
        body.put("reason", why);
        return api().post("/api/holds", body);
    }

    private Integer end(long number, boolean throwAway) {
        JsonNode ended = api().post("/api/holds/" + number + "/end?discard=" + throwAway, null);
        int messages = ended.path("messages").asInt(0);
        String mails = messages == 1 ? "1 message" : messages + " messages";
        out().println("Hold " + number + " is ended; " + mails + (throwAway ? " discarded." : " released."));
        return 0;
    }

    private static Listing table(JsonNode holds) {
        var table = new Listing(List.of("Hold", "Holds", "Reason", "By", "Since", "Waiting"));
        for (JsonNode hold : holds) {
            String of = !hold.path("rule").isNull()
                    ? "rule " + hold.path("rule").asString("")
                    : !hold.path("source").isNull()
                            ? "source " + hold.path("source").asString("")
                            : "all mail";
            table.add(List.of(
                    hold.path("id").toString(),
                    of,
                    hold.path("reason").asString(""),
                    hold.path("by").asString("the service"),
                    Words.time(hold.path("at")),
                    hold.path("messages").toString()));
        }
        return table;
    }
}
