package dev.oddsentry.service.checks;

import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.CellText;
import java.util.List;

/** A group that could not be judged, in words, as kept with the check. */
public record NotJudged(String group, String reason) {
    private static final int MOST_NAMED = 20;

    static List<NotJudged> first(Reckoned reckoned, Moment moment) {
        return reckoned.judge().notJudged().stream()
                .limit(MOST_NAMED)
                .map(each -> new NotJudged(CellText.joined(each.per(), moment.zone()), each.reason()))
                .toList();
    }
}
