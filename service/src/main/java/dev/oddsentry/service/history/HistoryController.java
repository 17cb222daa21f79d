package dev.oddsentry.service.history;

import dev.oddsentry.service.rules.RuleNames;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What a rule's checks measured. */
@RestController
@RequestMapping(path = "/api/rules/{name}/history", produces = "application/json")
class HistoryController {
    private static final int MOST_POINTS = 500;

    private final SeriesStore store;
    private final RuleNames names;

    HistoryController(SeriesStore store, RuleNames names) {
        this.store = store;
        this.names = names;
    }

    /** Every series, its newest points oldest first. */
    @GetMapping
    List<SeriesStore.Told> all(@PathVariable String name) {
        return store.all(names.idOf(name), MOST_POINTS);
    }
}
