package dev.oddsentry.service.evaluation;

import dev.oddsentry.core.condition.RowFailureException;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.evaluation.RuleEvaluator;
import dev.oddsentry.core.evaluation.SeenTexts;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Digester;
import dev.oddsentry.core.memory.Comparison;
import dev.oddsentry.core.memory.DuplicateIdentityException;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.KnownTable;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.config.Installation;
import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.measurements.MeasurementStore;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.queries.QueryInput;
import dev.oddsentry.service.queries.QueryRunner;
import dev.oddsentry.service.queries.RunningQuery;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Second step, outside any transaction of ours: reads the result, evaluates each row and compares it with memory as it streams. */
@Component
public class Evaluator {
    private final QueryRunner queries;
    private final MemoryStore memory;
    private final MeasurementStore series;
    private final ExpectedGroups expected;
    private final Digester digester;

    Evaluator(
            QueryRunner queries,
            MemoryStore memory,
            MeasurementStore series,
            ExpectedGroups expected,
            Installation installation) {
        this.queries = queries;
        this.series = series;
        this.expected = expected;
        this.memory = memory;
        this.digester = installation.digester();
    }

    public Evaluation evaluate(Attempt attempt, RunningQuery running) {
        var rule = attempt.rule().definition();
        var query = attempt.query().definition();
        return evaluate(new EvaluationInput(
                rule,
                query,
                attempt.source(),
                attempt.moment(),
                attempt.thresholds(),
                rule.isPlainReport() ? new KnownTable(0) : memory.known(attempt.scope()),
                attempt.tick(),
                attempt.pending(),
                new StoredMeasurements(series, attempt.scope(), rule, query, attempt.moment(), attempt.goodSlots()),
                new EvaluationInput.Options(
                        attempt.scope().copy(),
                        attempt.newcomer(),
                        false,
                        null,
                        running,
                        wanted(attempt),
                        Long.MAX_VALUE)));
    }

    /** Any row may be needed if all open findings are reported or attached; else only rows of findings that change or have updates. */
    private @Nullable Set<Digest> wanted(Attempt attempt) {
        var rule = attempt.rule().definition();
        boolean all = rule.delivery().attaches()
                || rule.delivery().layout().stillOpen()
                || rule.memory().mode() != RuleDefinition.Mode.INCREMENTAL
                || rule.memory().remindEvery() != null
                || !attempt.pending().isNone();
        return all ? null : memory.mayTellUnmoved(attempt.scope());
    }

    /** The same for a preview or a trial, which have no attempt. */
    public Evaluation evaluate(EvaluationInput input) {
        return evaluateAll(List.of(input)).getFirst();
    }

    /** Several questions on the rows of one reading: they differ in conditions, thresholds or memory alone. */
    public List<Evaluation> evaluateAll(List<EvaluationInput> questions) {
        var all = questions.stream().map(Rows::new).toList();
        var first = questions.getFirst();
        var values = Parameters.valuesAt(first.moment(), first.rule(), first.query());
        var watched = first.options().running();
        var running = watched == null ? new RunningQuery(first.source().timeLimit()) : watched;
        try {
            return evaluateAll(all, first, values, running);
        } catch (RuntimeException | Error failed) {
            all.forEach(Rows::close);
            throw failed;
        }
    }

    private List<Evaluation> evaluateAll(
            List<Rows> all, EvaluationInput first, QueryInput values, RunningQuery running) {
        var reading = queries.read(
                first.source(),
                first.query(),
                values,
                columns -> {
                    var sinks = all.stream().map(rows -> rows.start(columns)).toList();
                    return row -> sinks.forEach(sink -> sink.accept(row));
                },
                running);
        return all.stream().map(rows -> rows.finish(reading)).toList();
    }

    /** Takes the rows of one result. */
    private final class Rows {
        private final EvaluationInput input;
        private final SeenRows exceptions = new SeenRows();
        private final SeenRows whole = new SeenRows();
        private final Set<Digest> pending = new HashSet<>();
        private final List<Problem> warnings = new ArrayList<>();
        private @Nullable SeenTexts texts;
        private long evaluated;
        private @Nullable CheckedRule conditions;
        private @Nullable RuleEvaluator evaluator;
        private @Nullable Comparison comparison;

        Rows(EvaluationInput input) {
            this.input = input;
        }

        void close() {
            exceptions.close();
            whole.close();
        }

        /** The rule is checked against the columns that came, since the source may have changed since it was saved. */
        QueryRunner.RowSink start(Columns columns) {
            var rule = input.rule();
            var checked = CheckedRule.check(rule, columns, input.thresholds(), null);
            conditions = checked.conditions();
            warnings.addAll(checked.warnings());
            var options = input.options();
            if (options.curious()) texts = conditions.seenTexts();
            evaluator = conditions.at(input.moment(), options.copy() == null ? digester : digester.of(options.copy()));
            if (rule.delivery().showsWholeReport()) evaluator.keepAllCells();
            if (options.curious()) evaluator.keepExtremes(conditions.bounds());
            if (options.sought() != null) evaluator.seek(options.sought());
            boolean parametersMove = Parameters.move(rule, input.query());
            var rules = new Comparison.Rules(
                    conditions.absence(rule, parametersMove),
                    rule.memory().openAfter(),
                    rule.memory().clearAfter(),
                    rule.memory().confirmAfter());
            boolean restarts = input.pending().startsOver();
            comparison = new Comparison(input.known(), restarts ? rules.restarted() : rules, input.tick());
            return this::accept;
        }

        Evaluation finish(QueryRunner.Reading reading) {
            var groupsDefinition = input.rule().groups();
            if (groupsDefinition != null) {
                expected.tell(evaluator(), groupsDefinition, input);
                inWords(
                        null,
                        () -> evaluator()
                                .finish(input.past().series(conditions().needs()), this::see));
            }
            if (texts != null) warnings.addAll(texts.warnings());
            var moves = comparison().finish();
            return new Evaluation(
                    reading,
                    evaluator(),
                    input,
                    moves,
                    exceptions,
                    whole,
                    pending,
                    comparison().open(),
                    conditions(),
                    warnings,
                    texts == null ? List.of() : texts.emptyTexts());
        }

        private void accept(@Nullable Object[] row) {
            if (evaluated++ >= input.options().most()) return;
            if (texts != null) texts.see(row);
            inWords(row, () -> evaluator().accept(row, this::see));
        }

        private void see(EvaluatedRow evaluatedRow) {
            if (input.rule().delivery().showsWholeReport()) whole.add(evaluatedRow);
            int movesBefore = comparison().moves();
            var now = comparison().see(evaluatedRow);
            if (now == null) return;
            var wanted = input.options().wanted();
            boolean moved = comparison().moves() > movesBefore;
            if (wanted == null || moved || wanted.contains(evaluatedRow.key())) exceptions.add(evaluatedRow);
            else exceptions.count(evaluatedRow);
            if (now.state() == FindingState.PENDING) pending.add(evaluatedRow.key());
        }

        /** @param row null for a group */
        private void inWords(@Nullable Object @Nullable [] row, Runnable step) {
            try {
                step.run();
            } catch (RowFailureException e) {
                String where =
                        row == null ? "a group" : "the row " + words(evaluator().identityOf(row));
                throw new CheckFailureException(
                        FailureKind.CONDITION,
                        "The condition cannot be calculated for " + where + ": " + e.getMessage() + ".",
                        e);
            } catch (DuplicateIdentityException e) {
                String key = String.join(", ", input.rule().key());
                throw new CheckFailureException(
                        FailureKind.SAME_KEY,
                        "Two rows have the same key values (" + key + "): " + words(e.identity())
                                + ". Nothing was saved. Add key columns so that each row is unique.",
                        e);
            }
        }

        private String words(List<? extends @Nullable Object> identity) {
            return CellText.joined(identity, input.moment().zone());
        }

        private CheckedRule conditions() {
            return Objects.requireNonNull(conditions, "no columns yet");
        }

        RuleEvaluator evaluator() {
            return Objects.requireNonNull(evaluator, "no columns yet");
        }

        Comparison comparison() {
            return Objects.requireNonNull(comparison, "no columns yet");
        }
    }
}
