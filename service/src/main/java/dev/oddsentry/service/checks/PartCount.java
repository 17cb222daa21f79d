package dev.oddsentry.service.checks;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** How many rows a part of the condition left, and the rows it was unknown for by column, as kept with the check. */
public record PartCount(String text, long rowsLeft, Map<String, Long> unknown) {
    static List<PartCount> of(Reckoned reckoned) {
        var columns = reckoned.columns();
        return reckoned.judge().tally().stream()
                .map(part -> {
                    var unknown = new LinkedHashMap<String, Long>();
                    part.unknownByColumn()
                            .forEach((index, rows) ->
                                    unknown.put(columns.at(index).name(), rows));
                    return new PartCount(part.text(), part.rowsLeft(), unknown);
                })
                .toList();
    }

    /** The same of several results that one condition was judged on, part by part. */
    static List<PartCount> sum(List<List<PartCount>> all) {
        var sums = new LinkedHashMap<String, PartCount>();
        all.forEach(parts -> parts.forEach(part -> sums.merge(part.text(), part, PartCount::plus)));
        return List.copyOf(sums.values());
    }

    private PartCount plus(PartCount other) {
        var both = new LinkedHashMap<>(unknown);
        other.unknown.forEach((column, rows) -> both.merge(column, rows, Long::sum));
        return new PartCount(text, rowsLeft + other.rowsLeft, both);
    }
}
