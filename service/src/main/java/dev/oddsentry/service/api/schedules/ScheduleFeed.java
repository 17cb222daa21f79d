package dev.oddsentry.service.api.schedules;

import static dev.oddsentry.service.db.generated.Tables.RULE;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.visibility.Visibility;
import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.property.DtEnd;
import net.fortuna.ical4j.model.property.DtStart;
import net.fortuna.ical4j.model.property.ProdId;
import net.fortuna.ical4j.model.property.Summary;
import net.fortuna.ical4j.model.property.Uid;
import net.fortuna.ical4j.model.property.Url;
import net.fortuna.ical4j.model.property.immutable.ImmutableCalScale;
import net.fortuna.ical4j.model.property.immutable.ImmutableVersion;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/**
 * The slots of all active rules for the weeks to come, each an event of its own at its instant, since no recurrence rule could say how
 * they move off holidays.
 */
@Component
class ScheduleFeed {
    private static final Duration AHEAD = Duration.ofDays(60);
    private static final int MOST_OF_ONE_RULE = 200;

    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Schedules schedules;
    private final Visibility visibility;
    private final Settings settings;

    ScheduleFeed(
            DSLContext db, DefinitionStore definitions, Schedules schedules, Settings settings, Visibility visibility) {
        this.visibility = visibility;
        this.db = db;
        this.definitions = definitions;
        this.schedules = schedules;
        this.settings = settings;
    }

    String text(Person of, Instant now) {
        var calendar = new Calendar();
        calendar.add(new ProdId("-//Odd Sentry//Schedules//EN"));
        calendar.add(ImmutableVersion.VERSION_2_0);
        calendar.add(ImmutableCalScale.GREGORIAN);
        var active = db.select(RULE.ID)
                .from(RULE)
                .where(RULE.STATE.eq(RuleState.ACTIVE))
                .fetchSet(RULE.ID);
        visibility.of(of).of(definitions.rules()).stream()
                .filter(rule -> active.contains(rule.ruleId()))
                .forEach(rule -> addSlots(calendar, rule, now));
        return calendar.toString();
    }

    private void addSlots(Calendar calendar, Current<RuleDefinition> rule, Instant now) {
        Instant until = now.plus(AHEAD);
        var schedule = schedules.of(rule.definition());
        var next = schedule.nextAfter(now);
        for (int i = 0; i < MOST_OF_ONE_RULE && next.isPresent() && next.get().isBefore(until); i++) {
            calendar.add(event(rule.ruleId(), rule.definition(), next.get()));
            next = schedule.nextAfter(next.get());
        }
    }

    private VEvent event(RuleId ruleId, RuleDefinition rule, Instant slot) {
        var event = new VEvent();
        event.add(new Uid(ruleId + "-" + slot.getEpochSecond() + "@oddsentry"));
        event.add(new DtStart<>(slot));
        event.add(new DtEnd<>(slot.plus(Duration.ofMinutes(1))));
        event.add(new Summary("Check: " + rule.title()));
        event.add(new Url(URI.create(settings.baseUrl() + "/rules/" + rule.name())));
        return event;
    }
}
