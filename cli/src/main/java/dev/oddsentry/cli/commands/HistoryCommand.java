package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(
        name = "history",
        mixinStandardHelpOptions = true,
        description =
                "Lists what a rule's checks measured of each group; fills it in from earlier slots, or joins it over an edit.",
        footer = {
            "",
            "Example: odd history fuel-per-mile",
            "         odd history refunds-above-usual --fill-days 120",
            "An edit of the query, its parameters, the zone or a measure starts a new history, unless --join says that they compare."
        })
public final class HistoryCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    CopyOption copy;

    @Option(
            names = "--fill-days",
            paramLabel = "N",
            description = "Runs the slots of the last N days for what they measure alone, marked as filled in.")
    @Nullable
    Integer fillDays;

    @Option(names = "--join", description = "Takes what was measured before an edit as comparable.")
    boolean join;

    @Option(names = "--points", description = "Every point, not the last alone.")
    boolean points;

    @Override
    public Integer call() {
        if (fillDays != null) {
            JsonNode asked = api().post(rule.path("/history/fill"), asked(fillDays));
            JsonNode work = new LongWork(api(), err()).await(asked);
            if (!work.path("state").asString("").equals("DONE")) {
                err().println("Filling in " + Words.state(work.path("state")) + ": "
                        + work.path("reason").asString(""));
                return 1;
            }
        }
        if (join) {
            JsonNode joined = api().post(rule.path("/history/join"), null);
            err().println(joined.path("moved") + " points joined.");
        }
        JsonNode all = api().get(rule.path("/history"));
        output.print(out(), all, () -> points ? points(all) : latest(all), "Nothing is measured yet.");
        return 0;
    }

    private Map<String, @Nullable Object> asked(int days) {
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("days", days);
        body.put("copy", copy.copy);
        return body;
    }

    private static Listing latest(JsonNode all) {
        var table = new Listing("Measured", "Group", "Points", "Last slot", "Last value");
        for (JsonNode series : all) {
            JsonNode last = series.path("points").path(series.path("points").size() - 1);
            table.add(
                    series.path("measured").asString(""),
                    series.path("group").asString(""),
                    series.path("total").asString(""),
                    Words.time(last.path("slot")),
                    Words.number(last.path("value")));
        }
        return table;
    }

    private static Listing points(JsonNode all) {
        var table = new Listing("Measured", "Group", "Slot", "Value", "Origin");
        for (JsonNode series : all) {
            for (JsonNode point : series.path("points")) {
                table.add(
                        series.path("measured").asString(""),
                        series.path("group").asString(""),
                        point.path("slot").asString(""),
                        point.path("value").asString(""),
                        point.path("filledIn").asBoolean(false) ? "filled in" : "measured");
            }
        }
        return table;
    }
}
