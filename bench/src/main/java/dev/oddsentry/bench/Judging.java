package dev.oddsentry.bench;

import dev.oddsentry.core.condition.Condition;
import dev.oddsentry.core.history.Series;
import java.util.Collection;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OperationsPerInvocation;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;
import org.openjdk.jmh.infra.Blackhole;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.RunnerException;
import org.openjdk.jmh.runner.options.CommandLineOptionException;
import org.openjdk.jmh.runner.options.CommandLineOptions;
import org.openjdk.jmh.runner.options.OptionsBuilder;

/** Judging a row, beside reading that row from a PostgreSQL on the same machine: nanoseconds for one row each. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Fork(
        value = 3,
        jvmArgsAppend = {"--enable-native-access=ALL-UNNAMED", "-Djmh.shutdownTimeout=1"})
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class Judging {
    @SuppressWarnings("NullAway.Init")
    private Sailings sailings;

    @Setup
    public void setUp() {
        sailings = new Sailings();
    }

    @TearDown
    public void tearDown() {
        sailings.stop();
    }

    /** The limit: what a check reads, with nobody judging it. */
    @Benchmark
    @OperationsPerInvocation(Sailings.ROWS)
    public void readRow(Blackhole hole) {
        sailings.read(hole::consume);
    }

    @Benchmark
    @OperationsPerInvocation(Sailings.ROWS)
    public void judgeFiveComparisons(Blackhole hole) {
        var evaluator = Condition.read(Sailings.FIVE_COMPARISONS, sailings.columns())
                .orThrow()
                .at(Sailings.SLOT);
        for (var row : sailings.rows()) hole.consume(evaluator.evaluate(row));
    }

    /** All that is made of a row: verdict, severity, identity and fingerprint. */
    @Benchmark
    @OperationsPerInvocation(Sailings.ROWS)
    public void sightRow(Blackhole hole) {
        var evaluator = sailings.judgeOfRows();
        for (var row : sailings.rows()) evaluator.accept(row, hole::consume);
    }

    /** A row into one of 26 groups with five aggregates, which are evaluated at the end. */
    @Benchmark
    @OperationsPerInvocation(Sailings.ROWS)
    public void groupRow(Blackhole hole) {
        var evaluator = sailings.judgeOfGroups();
        for (var row : sailings.rows()) evaluator.accept(row, hole::consume);
        evaluator.finish((_, _) -> Series.EMPTY, hole::consume);
    }

    /** Takes JMH's own options, such as {@code -f 1 -i 3}. */
    public static void main(String[] arguments) throws RunnerException, CommandLineOptionException {
        var options = new OptionsBuilder()
                .parent(new CommandLineOptions(arguments))
                .shouldFailOnError(true)
                .include(Judging.class.getName())
                .build();
        var results = new Runner(options).run();
        report(results);
    }

    private static void report(Collection<RunResult> results) {
        Map<String, Double> medians = new TreeMap<>();
        for (var result : results) {
            var primary = result.getPrimaryResult();
            medians.put(primary.getLabel(), primary.getStatistics().getPercentile(50));
        }
        double limit = medians.getOrDefault("readRow", Double.NaN);
        System.out.println("\nMedians for one row, and the ratio to reading it:");
        medians.forEach(
                (name, median) -> System.out.printf("  %-22s %8.1f ns  %6.3f ×%n", name, median, median / limit));
    }
}
