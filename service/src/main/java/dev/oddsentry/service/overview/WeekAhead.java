package dev.oddsentry.service.overview;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.RULE;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;
import static java.util.stream.Collectors.toMap;
import static org.jooq.impl.DSL.avg;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.extract;
import static org.jooq.impl.DSL.floor;
import static org.jooq.impl.DSL.inline;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import dev.oddsentry.service.web.RefusedException;
import java.math.BigDecimal;
import java.time.Clock;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jooq.DSLContext;
import org.jooq.DatePart;
import org.springframework.stereotype.Component;

/** When the checks of a week are, and how much there is to do in each of its hours. */
@Component
public class WeekAhead {
    private static final int DAYS = 7;
    private static final int MOST_YEARS = 10;
    /** As far back as is looked for how long checks take and when mail is sent. */
    private static final int WEEKS_BACK = 4;
    /** Zones differ by multiples of it, so that what is counted by it can be put into the hours of any zone. */
    private static final int QUARTER_HOUR = 900;

    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Schedules schedules;
    private final VisibleDefinitions visible;
    private final Clock clock;
    private final Visibility visibility;

    WeekAhead(
            DSLContext db,
            DefinitionStore definitions,
            Schedules schedules,
            Clock clock,
            VisibleDefinitions visible,
            Visibility visibility) {
        this.visibility = visibility;
        this.visible = visible;
        this.db = db;
        this.definitions = definitions;
        this.schedules = schedules;
        this.clock = clock;
    }

    /** @param hours every hour of the week, in order; where clocks change, a day has 23 or 25 */
    public record WeekView(ZoneId zone, Instant from, Instant until, List<WeekHour> hours) {}

    /**
     * @param seconds how long its checks take together, going by those of the last four weeks
     * @param messages how many were sent in this hour of the week, the mean of the last four weeks
     * @param rules those that are checked in it, most checks first
     */
    public record WeekHour(Instant from, int checks, double seconds, double messages, List<WeekRule> rules) {}

    /** @param at the first check of the hour */
    public record WeekRule(String rule, String title, int checks, Instant at) {}

    /**
     * @param first the first of seven days in the zone
     * @throws RefusedException if it is more than ten years away, where no calendar reaches
     */
    public WeekView of(LocalDate first, ZoneId zone) {
        var today = clock.instant().atZone(zone).toLocalDate();
        if (first.isBefore(today.minusYears(MOST_YEARS)) || first.isAfter(today.plusYears(MOST_YEARS)))
            throw RefusedException.invalid(
                    "first: a day of the last or the next " + MOST_YEARS + " years, such as " + today + ".");
        Instant from = first.atStartOfDay(zone).toInstant();
        Instant until = first.plusDays(DAYS).atStartOfDay(zone).toInstant();
        var hours = new TreeMap<Instant, Hour>();
        for (Instant hour = from; hour.isBefore(until); hour = next(hour, zone)) hours.put(hour, new Hour());
        var took = secondsByRule();
        for (var rule : activeRules()) {
            double seconds = took.getOrDefault(rule.ruleId(), 0.0);
            slots(rule, from, until)
                    .forEach(slot -> hours.floorEntry(slot).getValue().add(rule.definition(), slot, seconds));
        }
        var messages = messagesByHour(zone);
        var views = hours.entrySet().stream()
                .map(each -> each.getValue()
                        .view(
                                each.getKey(),
                                messages.getOrDefault(
                                        HourOfWeek.of(each.getKey().atZone(zone)), 0.0)))
                .toList();
        return new WeekView(zone, from, until, views);
    }

    private List<Current<RuleDefinition>> activeRules() {
        var active = db.select(RULE.ID)
                .from(RULE)
                .where(RULE.STATE.eq(RuleState.ACTIVE))
                .fetchSet(RULE.ID);
        return visible.rules().stream()
                .filter(rule -> active.contains(rule.ruleId()))
                .toList();
    }

    /** What is added up of an hour. */
    private static final class Hour {
        private final Map<String, WeekRule> rules = new HashMap<>();
        private double seconds;

        void add(RuleDefinition rule, Instant slot, double took) {
            seconds += took;
            rules.merge(
                    rule.name(),
                    new WeekRule(rule.name(), rule.title(), 1, slot),
                    (one, _) -> new WeekRule(one.rule(), one.title(), one.checks() + 1, one.at()));
        }

        WeekHour view(Instant from, double messages) {
            return new WeekHour(
                    from,
                    rules.values().stream().mapToInt(WeekRule::checks).sum(),
                    seconds,
                    messages,
                    rules.values().stream()
                            .sorted(Comparator.comparingInt((WeekRule rule) -> -rule.checks())
                                    .thenComparing(WeekRule::at)
                                    .thenComparing(WeekRule::rule))
                            .toList());
        }
    }

    private static Instant next(Instant hour, ZoneId zone) {
        // By the instant, since clocks repeat an hour. Where they move by half an hour, the last hour of the day is
        // shorter.
        Instant next = hour.plus(Duration.ofHours(1));
        Instant midnight =
                hour.atZone(zone).toLocalDate().plusDays(1).atStartOfDay(zone).toInstant();
        return next.isAfter(midnight) ? midnight : next;
    }

    private List<Instant> slots(Current<RuleDefinition> rule, Instant from, Instant until) {
        var schedule = schedules.of(rule.definition());
        var slots = new ArrayList<Instant>();
        for (var next = schedule.nextAfter(from.minusNanos(1));
                next.isPresent() && next.get().isBefore(until);
                next = schedule.nextAfter(next.get())) slots.add(next.get());
        return slots;
    }

    private Map<RuleId, Double> secondsByRule() {
        var taken = avg(
                extract(RULE_CHECK.FINISHED_AT, DatePart.EPOCH).minus(extract(RULE_CHECK.STARTED_AT, DatePart.EPOCH)));
        return db
                .select(RULE_CHECK.RULE_ID, taken)
                .from(RULE_CHECK)
                .where(RULE_CHECK.SLOT.ge(begun()), RULE_CHECK.FINISHED_AT.isNotNull())
                .groupBy(RULE_CHECK.RULE_ID)
                .fetch()
                .stream()
                .collect(toMap(
                        row -> row.value1(),
                        row -> row.value2() == null ? 0 : row.value2().doubleValue()));
    }

    private record HourOfWeek(DayOfWeek day, int hour) {
        static HourOfWeek of(ZonedDateTime at) {
            return new HourOfWeek(at.getDayOfWeek(), at.getHour());
        }
    }

    private Map<HourOfWeek, Double> messagesByHour(ZoneId zone) {
        var quarter = floor(extract(MESSAGE.CREATED_AT, DatePart.EPOCH)
                .cast(BigDecimal.class)
                .div(inline(QUARTER_HOUR)));
        var byHour = new HashMap<HourOfWeek, Double>();
        db.select(quarter, count())
                .from(MESSAGE)
                .where(
                        MESSAGE.CREATED_AT.ge(begun()),
                        MESSAGE.PREVIEW_OF.isNull(),
                        MESSAGE.TRIAL_OF.isNull(),
                        visibility.now().messages())
                .groupBy(quarter)
                .forEach(row -> byHour.merge(
                        HourOfWeek.of(Instant.ofEpochSecond(row.value1().longValueExact() * QUARTER_HOUR)
                                .atZone(zone)),
                        row.value2() / (double) WEEKS_BACK,
                        Double::sum));
        return byHour;
    }

    private Instant begun() {
        return clock.instant().minus(Duration.ofDays(DAYS * WEEKS_BACK));
    }
}
