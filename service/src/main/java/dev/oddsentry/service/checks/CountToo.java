package dev.oddsentry.service.checks;

import java.util.ArrayList;
import java.util.List;

/**
 * An offer to count rows of which nobody can tell: {@code or the reason is missing}.
 *
 * @param condition the exceptions' condition, widened so
 */
public record CountToo(String part, String column, long rows, String condition) {
    static List<CountToo> of(Reckoned reckoned) {
        var offers = new ArrayList<CountToo>();
        var tally = reckoned.judge().tally();
        for (int i = 0; i < tally.size(); i++) {
            int part = i;
            tally.get(i).unknownByColumn().forEach((index, rows) -> {
                String column = reckoned.columns().at(index).name();
                reckoned.judges()
                        .countingMissing(part, column)
                        .ifPresent(condition ->
                                offers.add(new CountToo(tally.get(part).text(), column, rows, condition)));
            });
        }
        return offers;
    }
}
