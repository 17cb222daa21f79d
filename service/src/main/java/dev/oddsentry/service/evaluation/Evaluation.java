package dev.oddsentry.service.evaluation;

import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.evaluation.RuleEvaluator;
import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.evaluation.SeenTexts;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.memory.Moves;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.layouts.ExtractRows;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.queries.QueryRunner;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A result read to its end, evaluated and compared with memory.
 *
 * @param moves those that this check moves
 * @param exceptions every exception of the present result, pending ones among them
 * @param whole every row of the result, exception or not, where the rule shows the whole report; else empty
 * @param pending the keys of those that have not lasted long enough yet
 * @param open how many findings are open after this check, whether in the result or not
 * @param warnings what is doubtful in the conditions, on these rows too where the question was curious
 * @param emptyTexts texts that are empty where the condition asks for missing ones; empty unless the question was curious
 */
public record Evaluation(
        QueryRunner.Reading reading,
        RuleEvaluator evaluator,
        EvaluationInput input,
        Moves moves,
        SeenRows exceptions,
        SeenRows whole,
        Set<Digest> pending,
        long open,
        CheckedRule conditions,
        List<Problem> warnings,
        List<SeenTexts.Empty> emptyTexts)
        implements AutoCloseable {
    /** Takes away what was put aside for it. */
    @Override
    public void close() {
        exceptions.close();
        whole.close();
    }

    /** The store's number of a finding; null of one that this check opens. */
    @Nullable
    public Long idOf(Digest key) {
        var known = input.known().find(key);
        return known == null ? null : known.id();
    }

    /** Whose an exception of the result is. */
    public AudienceKey audienceOf(EvaluatedRow exception) {
        var split = input.rule().delivery().split();
        if (split == null) return AudienceKey.WHOLE;
        Object value = exception.row().get(columns().require(split.by()));
        return new AudienceKey(
                value == null ? "" : CellText.of(value, input.moment().zone()));
    }

    /** The names of the columns that an extract shows unless the rule says which. */
    private List<String> shown() {
        return conditions.shown();
    }

    /** How its rows are laid out. */
    public ExtractRows rows(RuleLabels labels) {
        return new ExtractRows(input.rule(), labels, evaluator, shown());
    }

    /** The columns of what was evaluated: the query's, or those of the groups. */
    public Columns columns() {
        return evaluator.columns();
    }
}
