package dev.oddsentry.service.evaluation;

import java.util.ArrayList;
import java.util.List;

/**
 * An offer to count rows for which the condition is unknown ({@code or the reason is missing}), or whose text is empty where the condition asks
 * for missing texts.
 *
 * @param condition the exceptions' condition, widened so
 * @param empty true where the text is there, but empty
 */
public record UnknownRowsSuggestion(String column, long rows, String condition, boolean empty) {
    public static List<UnknownRowsSuggestion> of(Evaluation evaluation) {
        var offers = new ArrayList<UnknownRowsSuggestion>();
        var tally = evaluation.evaluator().tally();
        for (int i = 0; i < tally.size(); i++) {
            int part = i;
            tally.get(i).unknownByColumn().forEach((index, rows) -> {
                String column = evaluation.columns().at(index).name();
                evaluation
                        .conditions()
                        .countingMissing(part, column)
                        .ifPresent(condition -> offers.add(new UnknownRowsSuggestion(column, rows, condition, false)));
            });
        }
        evaluation
                .emptyTexts()
                .forEach(each ->
                        offers.add(new UnknownRowsSuggestion(each.column(), each.rows(), each.instead(), true)));
        return offers;
    }
}
