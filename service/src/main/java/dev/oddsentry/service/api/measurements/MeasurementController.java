package dev.oddsentry.service.api.measurements;

import dev.oddsentry.service.measurements.MeasurementJoin;
import dev.oddsentry.service.measurements.MeasurementStore;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.rules.RuleNames;
import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What a rule's checks measured. */
@RestController
@RequestMapping(path = "/api/rules/{name}/measurements", produces = "application/json")
class MeasurementController {
    private static final int MOST_POINTS = 500;

    private final MeasurementStore store;
    private final MeasurementJoin joining;
    private final RuleNames names;

    MeasurementController(MeasurementStore store, MeasurementJoin joining, RuleNames names) {
        this.store = store;
        this.joining = joining;
        this.names = names;
    }

    /** Every series, its newest points oldest first. */
    @GetMapping
    List<MeasurementStore.MeasurementSeries> listMeasurements(@PathVariable String name) {
        var id = names.idOf(name);
        return store.all(id, MOST_POINTS, joining.present(id));
    }

    /** @param moved how many points now belong to the series that the rule looks back at */
    record KeptMeasurements(int moved) {}

    /** Makes the points of earlier meanings points of the present ones, where a person says that they are comparable. */
    @PostMapping("/keep")
    KeptMeasurements keepMeasurements(@AuthenticationPrincipal Person by, @PathVariable String name) {
        return new KeptMeasurements(joining.join(by, names.idOf(name)));
    }
}
