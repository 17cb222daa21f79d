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
}
