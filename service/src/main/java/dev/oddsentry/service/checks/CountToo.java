package dev.oddsentry.service.checks;

import java.util.ArrayList;
import java.util.List;

/**
 * An offer to count rows for which the condition is unknown ({@code or the reason is missing}), or whose text is blank where the condition asks
 * for missing texts.
 *
 * @param condition the exceptions' condition, widened so
 * @param blank true where the text is there, but blank
 */
public record CountToo(String column, long rows, String condition, boolean blank) {
    static List<CountToo> of(Reckoned reckoned) {
        var offers = new ArrayList<CountToo>();
        var tally = reckoned.judge().tally();
        for (int i = 0; i < tally.size(); i++) {
            int part = i;
            tally.get(i).unknownByColumn().forEach((index, rows) -> {
                String column = reckoned.columns().at(index).name();
                reckoned.judges()
                        .countingMissing(part, column)
                        .ifPresent(condition -> offers.add(new CountToo(column, rows, condition, false)));
            });
        }
        reckoned.blanks().forEach(each -> offers.add(new CountToo(each.column(), each.rows(), each.instead(), true)));
        return offers;
    }
}
