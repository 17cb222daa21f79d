package dev.oddsentry.cli.commands;

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
        description = {
            "Lists what outgoing mail is held. With --all, --source or --rule: holds it from now on; checks go on, and their mail waits and can be read.",
            "With --release or --throw-away: ends a hold, and sends what waits or stops it."
        },
        footer = {
            "",
            "Example: odd hold-mail --rule late-sailings --why \"the timetable is wrong today\"",
            "         odd hold-mail",
            "         odd hold-mail --release 3"
        })
public final class HoldMailCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    /** One thing at a time. */
    static final class Act {
        @Option(names = "--all", description = "All mail. For operators.")
        boolean all;

        @Option(
                names = "--source",
                paramLabel = "SOURCE",
                description = "Mail of the rules on a source. For operators.")
        @Nullable
        String source;

        @Option(names = "--rule", paramLabel = "RULE", description = "Mail of one rule.")
        @Nullable
        String rule;

        @Option(names = "--release", paramLabel = "NUMBER", description = "Ends that hold and sends what waits.")
        @Nullable
        Long release;

        @Option(names = "--throw-away", paramLabel = "NUMBER", description = "Ends that hold and stops what waits.")
        @Nullable
        Long throwAway;
    }

    @ArgGroup
    @Nullable
    Act act;

    @Option(names = "--why", paramLabel = "TEXT", description = "Why it is held; others see it.")
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
            throw new ParameterException(spec().commandLine(), "Say why, so that others know: --why TEXT");
        var body = new HashMap<String, @Nullable Object>();
        body.put("source", of.source);
        body.put("rule", of.rule);
        body.put("why", why);
        return api().post("/api/holds", body);
    }

    private Integer end(long number, boolean throwAway) {
        JsonNode ended = api().post("/api/holds/" + number + "/end?throwAway=" + throwAway, null);
        int messages = ended.path("messages").asInt(0);
        String mails = messages == 1 ? "1 mail" : messages + " mails";
        out().println("Hold " + number + " is ended; " + mails + (throwAway ? " stopped." : " released."));
        return 0;
    }

    private static Listing table(JsonNode holds) {
        var table = new Listing(List.of("Hold", "Of", "Why", "By", "Since", "Waiting"));
        for (JsonNode hold : holds) {
            String of = !hold.path("rule").isNull()
                    ? "rule " + hold.path("rule").asString("")
                    : !hold.path("source").isNull()
                            ? "source " + hold.path("source").asString("")
                            : "all mail";
            table.add(List.of(
                    hold.path("id").toString(),
                    of,
                    hold.path("why").asString(""),
                    hold.path("by").asString("the service"),
                    Words.time(hold.path("at")),
                    hold.path("messages").toString()));
        }
        return table;
    }
}
