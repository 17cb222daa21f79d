package dev.oddsentry.service.evaluation;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * How many rows a part of the condition left, as kept with the check.
 *
 * @param unknown the rows it was unknown for, by the column that is missing; one without several columns is counted for each
 * @param unknownRows the rows it was unknown for; null in checks of older versions
 */
public record PartCount(
        String text,
        long rowsLeft,
        Map<String, Long> unknown,
        @Nullable Long unknownRows) {
    public static List<PartCount> of(Evaluation evaluation) {
        var columns = evaluation.columns();
        return evaluation.evaluator().tally().stream()
                .map(part -> {
                    var unknown = new LinkedHashMap<String, Long>();
                    part.unknownByColumn()
                            .forEach((index, rows) ->
                                    unknown.put(columns.at(index).name(), rows));
                    return new PartCount(part.text(), part.rowsLeft(), unknown, part.unknown());
                })
                .toList();
    }

    /** The same of several results that one condition was evaluated on, part by part. */
    public static List<PartCount> sum(List<List<PartCount>> all) {
        var sums = new LinkedHashMap<String, PartCount>();
        all.forEach(parts -> parts.forEach(part -> sums.merge(part.text(), part, PartCount::plus)));
        return List.copyOf(sums.values());
    }

    private PartCount plus(PartCount other) {
        var both = new LinkedHashMap<>(unknown);
        other.unknown.forEach((column, rows) -> both.merge(column, rows, Long::sum));
        Long rows = unknownRows == null || other.unknownRows == null ? null : unknownRows + other.unknownRows;
        return new PartCount(text, rowsLeft + other.rowsLeft, both, rows);
    }
}
