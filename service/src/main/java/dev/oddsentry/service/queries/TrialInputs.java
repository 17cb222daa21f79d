package dev.oddsentry.service.queries;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.sources.SourceZones;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The moment and the parameter values with which a person runs a query by hand. */
@Component
class TrialInputs {
    private final Sources sources;
    private final SourceZones zones;
    private final Schedules schedules;
    private final Clock clock;

    TrialInputs(Sources sources, SourceZones zones, Schedules schedules, Clock clock) {
        this.sources = sources;
        this.zones = zones;
        this.schedules = schedules;
        this.clock = clock;
    }

    /** @param zone the source's own if none is chosen */
    Moment moment(QueryDefinition query, @Nullable String zone, @Nullable String calendar) {
        boolean chosen = zone != null && !zone.isBlank();
        return moment(chosen ? zone : zones.of(sources.require(query.source())).getId(), calendar);
    }

    /** The last good check of a query that nothing watches is a day ago, so that a window since then shows something. */
    Moment moment(@Nullable String zone, @Nullable String calendar) {
        var now = clock.instant();
        return schedules.momentOn(calendar, now, zone(zone)).since(now.minus(Duration.ofDays(1)));
    }

    private static ZoneId zone(@Nullable String name) {
        try {
            return name == null || name.isBlank() ? ZoneOffset.UTC : ZoneId.of(name);
        } catch (DateTimeException unknown) {
            throw RefusedException.invalid("zone: \"" + name + "\" is not a time zone. Example: Europe/Oslo");
        }
    }

    /** @throws InvalidDefinitionException if a value is missing or not of its type */
    static Map<String, @Nullable Object> values(QueryDefinition query, Map<String, String> given, Moment moment) {
        var values = new LinkedHashMap<String, @Nullable Object>();
        var problems = new ArrayList<Problem>();
        query.parameters().forEach((name, declared) -> {
            String written = given.getOrDefault(name, declared.defaultValue());
            if (declared.optional() && (written == null || written.isEmpty())) {
                values.put(name, null);
                return;
            }
            if (written == null || written.isEmpty()) {
                problems.add(Problem.error("it has no default: give it a value", "values." + name, null));
                return;
            }
            try {
                declared.check(written);
                values.put(name, declared.valueAt(moment, written));
            } catch (InvalidDefinitionException refused) {
                refused.problems().forEach(problem -> problems.add(problem.within("values." + name, problem.place())));
            }
        });
        if (!problems.isEmpty()) throw new InvalidDefinitionException(problems);
        return values;
    }
}
