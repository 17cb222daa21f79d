package dev.oddsentry.service.checks;

import dev.oddsentry.core.judging.RuleJudge;
import dev.oddsentry.core.judging.RuleJudges;
import dev.oddsentry.core.memory.Known;
import dev.oddsentry.core.memory.Move;
import dev.oddsentry.core.memory.Sighting;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.queries.QueryRunner;
import java.util.List;

/**
 * A result read to its end, judged and compared with memory.
 *
 * @param known every finding as memory held it before
 * @param moves those that this check moves
 * @param exceptions every exception of the present result, pending ones among them, in its order
 * @param warnings what is doubtful in the conditions, on these rows too where the question was curious
 */
record Reckoned(
        QueryRunner.Reading reading,
        RuleJudge judge,
        List<Known> known,
        List<Move> moves,
        List<Sighting> exceptions,
        RuleJudges judges,
        List<Problem> warnings) {

    /** The names of the columns that an extract shows unless the rule says which. */
    List<String> shown() {
        return judges.shown();
    }

    /** The columns of what was judged: the query's, or those of the groups. */
    Columns columns() {
        return judge.columns();
    }
}
