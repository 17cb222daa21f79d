package dev.oddsentry.cli.trying;

import dev.oddsentry.cli.common.BackgroundWork;
import dev.oddsentry.cli.common.CopyOption;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.KeptMeasurements;
import dev.oddsentry.contract.LongWorkView;
import dev.oddsentry.contract.MeasurementPoint;
import dev.oddsentry.contract.MeasurementSeries;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

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
            LongWorkView asked = api().post(rule.path("/measurements/backfill"), asked(fillDays), LongWorkView.class);
            LongWorkView work = new BackgroundWork(api(), err()).await(asked);
            if (!work.state().equals("DONE")) {
                err().println("The backfill " + Words.state(work.state()) + ": " + Words.or(work.reason(), ""));
                return 1;
            }
        }
        if (join) {
            KeptMeasurements joined = api().post(rule.path("/measurements/keep"), null, KeptMeasurements.class);
            err().println(joined.moved() + " measurements kept.");
        }
        List<MeasurementSeries> all = api().list(rule.path("/measurements"), MeasurementSeries.class);
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

    private static Listing latest(List<MeasurementSeries> all) {
        var table = new Listing("Measure", "Group", "Measurements", "Last slot", "Last value");
        for (var series : all) {
            MeasurementPoint last =
                    series.points().isEmpty() ? null : series.points().getLast();
            table.add(
                    series.measure(),
                    series.group(),
                    String.valueOf(series.total()),
                    Words.time(last == null ? null : last.slot()),
                    Words.number(last == null ? null : last.value()));
        }
        return table;
    }

    private static Listing points(List<MeasurementSeries> all) {
        var table = new Listing("Measure", "Group", "Slot", "Value", "Origin");
        for (var series : all) {
            for (var point : series.points()) {
                table.add(
                        series.measure(),
                        series.group(),
                        String.valueOf(point.slot()),
                        String.valueOf(point.value()),
                        point.backfilled() ? "backfilled" : "measured");
            }
        }
        return table;
    }
}
