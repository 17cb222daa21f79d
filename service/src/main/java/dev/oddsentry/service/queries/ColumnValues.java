package dev.oddsentry.service.queries;

import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.web.RefusedException;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The values that a column of a query has now, for those who write a condition. Nothing is kept. */
@Component
public class ColumnValues {
    /** More than a person chooses from; others are typed. */
    private static final int MOST = 200;
    /** So many different values are counted; a column with more has no list worth choosing from. */
    private static final int MOST_COUNTED = 10_000;

    private static final int LONGEST = 200;

    private final QueryViews views;
    private final TrialInputs inputs;
    private final QueryRunner runner;
    private final Sources sources;

    ColumnValues(QueryViews views, TrialInputs inputs, QueryRunner runner, Sources sources) {
        this.views = views;
        this.inputs = inputs;
        this.runner = runner;
        this.sources = sources;
    }

    /**
     * @param text as a condition compares it
     * @param label the word for a code; the text if it has none
     * @param rows how many rows have it
     */
    record ColumnValue(String text, String label, long rows) {}

    /**
     * @param values the most frequent ones, most rows first
     * @param missing how many rows have none
     * @param more whether there are others
     */
    public record ColumnValueList(long rowsRead, List<ColumnValue> values, long missing, boolean more) {}

    /**
     * @param given values of the query's parameters, as a rule would write them
     * @throws RefusedException if there is no such query or column, or the query cannot be run
     */
    public ColumnValueList of(
            String queryName,
            String column,
            Map<String, String> given,
            @Nullable String zone,
            @Nullable String calendar) {
        var query = views.require(queryName).definition();
        var moment = inputs.moment(query, zone, calendar);
        var values = TrialInputs.values(query, given, moment);
        var source = sources.require(query.source());
        var counted = new Counted();
        try {
            var reading = runner.read(
                    source,
                    query,
                    new QueryInput(values, moment.zone()),
                    columns -> {
                        int place = columns.indexOf(column, true)
                                .orElseThrow(() -> RefusedException.notFound("The query " + queryName
                                        + " returns no column " + column + "; it returns "
                                        + String.join(", ", columns.names()) + "."));
                        return row -> counted.add(row[place] == null ? null : CellText.of(row[place], moment.zone()));
                    },
                    new RunningQuery(source.timeLimit()));
            var words = query.meaningOf(column).words();
            return new ColumnValueList(
                    reading.rows(),
                    counted.mostFrequent(words),
                    counted.missing,
                    counted.rows.size() > MOST || counted.more);
        } catch (QueryFailureException failed) {
            throw RefusedException.invalid(String.valueOf(failed.getMessage()));
        }
    }

    private static final class Counted {
        private final Map<String, Long> rows = new HashMap<>();
        private long missing;
        private boolean more;

        void add(@Nullable String text) {
            if (text == null) missing++;
            else if (text.length() > LONGEST || rows.size() >= MOST_COUNTED && !rows.containsKey(text)) more = true;
            else rows.merge(text, 1L, Long::sum);
        }

        List<ColumnValue> mostFrequent(Map<String, String> words) {
            return rows.entrySet().stream()
                    .sorted(Map.Entry.<String, Long>comparingByValue(Comparator.reverseOrder())
                            .thenComparing(Map.Entry.comparingByKey()))
                    .limit(MOST)
                    .map(each -> new ColumnValue(
                            each.getKey(), words.getOrDefault(each.getKey(), each.getKey()), each.getValue()))
                    .toList();
        }
    }
}
