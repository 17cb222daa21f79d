package dev.oddsentry.cli.trying;

import dev.oddsentry.cli.common.BackgroundWork;
import dev.oddsentry.cli.common.CopyOption;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
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
        name = "measurements",
        mixinStandardHelpOptions = true,
        description = "List or backfill measured values.",
        footer = {
            "",
            "Example: odd measurements fuel-per-mile",
            "         odd measurements refunds-above-usual --backfill-days 120",
            "An edit of the query, parameters, zone or measures starts new measurements. Use --join if they are comparable."
        })
public final class MeasurementsCommand extends ServiceCommand {
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
            names = "--backfill-days",
            paramLabel = "N",
            description = "Backfill measurements for the slots of the last N days.")
    @Nullable
    Integer fillDays;

    @Option(names = "--join", description = "Keep the measurements from before an edit.")
    boolean join;

    @Option(names = "--points", description = "List every measurement, not only the latest.")
    boolean points;

    @Override
    public Integer call() {
        if (fillDays != null) {
            JsonNode asked = api().post(rule.path("/measurements/backfill"), asked(fillDays));
            JsonNode work = new BackgroundWork(api(), err()).await(asked);
            if (!work.path("state").asString("").equals("DONE")) {
                err().println("The backfill " + Words.state(work.path("state")) + ": "
                        + work.path("reason").asString(""));
                return 1;
            }
        }
        if (join) {
            JsonNode joined = api().post(rule.path("/measurements/keep"), null);
            err().println(joined.path("moved") + " measurements kept.");
        }
        JsonNode all = api().get(rule.path("/measurements"));
        output.print(
                out(),
                all,
                () -> points ? points(all) : latest(all),
                "No measurements yet. Each scheduled check adds one.");
        return 0;
    }

    private Map<String, @Nullable Object> asked(int days) {
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("days", days);
        body.put("copy", copy.key());
        return body;
    }

    private static Listing latest(JsonNode all) {
        var table = new Listing("Measure", "Group", "Measurements", "Last slot", "Last value");
        for (JsonNode series : all) {
            JsonNode last = series.path("points").path(series.path("points").size() - 1);
            table.add(
                    series.path("measure").asString(""),
                    series.path("group").asString(""),
                    series.path("total").asString(""),
                    Words.time(last.path("slot")),
                    Words.number(last.path("value")));
        }
        return table;
    }

    private static Listing points(JsonNode all) {
        var table = new Listing("Measure", "Group", "Slot", "Value", "Origin");
        for (JsonNode series : all) {
            for (JsonNode point : series.path("points")) {
                table.add(
                        series.path("measure").asString(""),
                        series.path("group").asString(""),
                        point.path("slot").asString(""),
                        point.path("value").asString(""),
                        point.path("backfilled").asBoolean(false) ? "backfilled" : "measured");
            }
        }
        return table;
    }
}
