package dev.oddsentry.service.queries;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.document.FieldPlaces;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.schedule.Coverage;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.failures.FailureKind;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/** The parameters of a query as its text, its document and a rule have them. */
public final class Parameters {
    private Parameters() {}

    /** The text uses each name that the document declares, and no other. */
    public static List<Problem> problemsOf(QueryDefinition query, FieldPlaces places) {
        var used = BoundSql.namesIn(query);
        var problems = new ArrayList<Problem>();
        for (String name : used) {
            if (query.parameters().containsKey(name)) continue;
            problems.add(places.locate(
                    "sql",
                    Problem.error("the text uses :" + name + ", which parameters does not declare", "", null)
                            .suggesting(Nearest.to(name, query.parameters().keySet())
                                    .orElse(null))));
        }
        for (String name : query.parameters().keySet()) {
            if (!used.contains(name)) {
                problems.add(Problem.error(
                        "the text never uses :" + name,
                        "parameters." + name,
                        places.of("parameters." + name + ".type")));
            }
        }
        return problems;
    }

    /** A rule gives each parameter that has no default, no unknown one, and values that fit. */
    public static List<Problem> problemsOf(RuleDefinition rule, QueryDefinition query, FieldPlaces places) {
        var problems = new ArrayList<Problem>();
        rule.parameters().forEach((name, written) -> {
            String field = "parameters." + name;
            var declared = query.parameters().get(name);
            if (declared == null) {
                problems.add(places.locate(
                        field,
                        Problem.error("the query " + query.name() + " has no parameter " + name, "", null)
                                .suggesting(Nearest.to(name, query.parameters().keySet())
                                        .orElse(null))));
                return;
            }
            try {
                declared.check(written);
            } catch (InvalidDefinitionException refused) {
                refused.problems().forEach(problem -> problems.add(places.locate(field, problem)));
            }
        });
        query.parameters().forEach((name, declared) -> {
            if (declared.defaultValue() == null && !declared.optional() && !isGiven(rule, name)) {
                problems.add(Problem.error(
                        "the query " + query.name() + " needs a value for " + name, "parameters", places.of("query")));
            }
        });
        return problems;
    }

    /** By the rule itself, by each of its personal copies, or by the events that begin its checks. */
    public static boolean isGiven(RuleDefinition rule, String parameter) {
        return rule.parameters().containsKey(parameter)
                || comesWithEvents(rule)
                || (rule.copies() != null && rule.copies().parameters().containsKey(parameter));
    }

    /** Events bring values with them, and nothing else begins a check of the rule by itself. */
    private static boolean comesWithEvents(RuleDefinition rule) {
        return !rule.triggers().events().isEmpty()
                && rule.triggers().after().isEmpty()
                && rule.schedule().isOnDemandOnly();
    }

    /** How much time lies between the ends of {@link #stretch}. */
    public static Optional<Duration> window(Moment moment, RuleDefinition rule, QueryDefinition query) {
        return stretch(moment, rule, query).map(stretch -> Duration.between(stretch.from(), stretch.to()));
    }

    /**
     * The time that a rule's moving parameters name at a slot: between the first and the last of them, or from the one there is to the slot, or
     * the other way round; empty where none moves, or one is since the last check, which names whatever time has gone by.
     */
    public static Optional<Coverage.Stretch> stretch(Moment moment, RuleDefinition rule, QueryDefinition query) {
        boolean sinceLast = query.parameters().entrySet().stream().anyMatch(entry -> {
            String written = written(rule, entry.getKey(), entry.getValue());
            return written != null && entry.getValue().isSinceLastCheck(written);
        });
        if (sinceLast) return Optional.empty();
        var moving = new TreeSet<Instant>();
        query.parameters().forEach((name, declared) -> {
            String written = written(rule, name, declared);
            if (written != null && declared.moves(written)) {
                var value = declared.valueAt(moment, written);
                for (Object each : value instanceof List<?> several ? several : List.of(value))
                    instant(each, moment).ifPresent(moving::add);
            }
        });
        if (moving.isEmpty()) return Optional.empty();
        if (moving.size() == 1) moving.add(moment.slot());
        return Optional.of(new Coverage.Stretch(moving.first(), moving.last()));
    }

    private static Optional<Instant> instant(Object value, Moment moment) {
        return switch (value) {
            case Instant instant -> Optional.of(instant);
            case LocalDate date -> Optional.of(date.atStartOfDay(moment.zone()).toInstant());
            case LocalDateTime local -> Optional.of(local.atZone(moment.zone()).toInstant());
            default -> Optional.empty();
        };
    }

    /** The values at a slot, in the zone of the rule. */
    public static QueryInput valuesAt(Moment moment, RuleDefinition rule, QueryDefinition query) {
        var values = new LinkedHashMap<String, @Nullable Object>();
        query.parameters().forEach((name, declared) -> {
            String written = written(rule, name, declared);
            if (written == null && !declared.optional()) throw withoutValue(rule, query, name);
            values.put(name, written == null ? null : declared.valueAt(moment, written));
        });
        return new QueryInput(values, moment.zone());
    }

    private static QueryFailureException withoutValue(RuleDefinition rule, QueryDefinition query, String name) {
        String next = rule.triggers().events().isEmpty()
                ? " Give it one in the rule, or a default in the query."
                : " It must come with the event; for a preview or a check on demand, give it one in the rule or a default in the query.";
        return new QueryFailureException(
                FailureKind.QUERY_INVALID,
                "The parameter " + name + " of the query " + query.name() + " has no value." + next);
    }

    /** The same without those that nobody has written, since a personal copy gives them. */
    public static Map<String, Object> writtenAt(Moment moment, RuleDefinition rule, QueryDefinition query) {
        var values = new LinkedHashMap<String, Object>();
        query.parameters().forEach((name, declared) -> {
            String written = written(rule, name, declared);
            if (written != null) values.put(name, declared.valueAt(moment, written));
        });
        return values;
    }

    /** True where what the query selects moves on with the slot. */
    public static boolean move(RuleDefinition rule, QueryDefinition query) {
        return query.parameters().entrySet().stream().anyMatch(entry -> {
            String written = written(rule, entry.getKey(), entry.getValue());
            return written != null && entry.getValue().moves(written);
        });
    }

    /** Warns of windows that begin at the last check to the second, since rows stamped before its slot may be committed after it. */
    public static List<Problem> unsettled(RuleDefinition rule, QueryDefinition query, FieldPlaces places) {
        return query.parameters().entrySet().stream()
                .filter(declared -> {
                    String written = written(rule, declared.getKey(), declared.getValue());
                    return written != null && declared.getValue().isUnsettled(written);
                })
                .map(declared -> places.locate(
                        "parameters." + declared.getKey(),
                        new Problem(
                                Problem.Weight.WARNING,
                                declared.getKey()
                                        + " is the last check's slot: a row stamped before it and committed after it is never"
                                        + " seen; write last check - 10 minutes: findings are not reported twice",
                                "",
                                null,
                                null)))
                .toList();
    }

    /** True where the query's text reads the clock itself, so that what it selects is not a matter of the slot. */
    public static boolean readsClock(QueryDefinition query) {
        return !SqlText.readsClock(query.sql()).isEmpty();
    }

    /** The values as they are written, in the rule or as the query's defaults. */
    public static Map<String, String> written(RuleDefinition rule, QueryDefinition query) {
        var values = new LinkedHashMap<String, String>();
        query.parameters().forEach((name, declared) -> {
            String value = written(rule, name, declared);
            if (value != null) values.put(name, value);
        });
        return values;
    }

    private static @Nullable String written(RuleDefinition rule, String name, QueryDefinition.Parameter declared) {
        return rule.parameters().getOrDefault(name, declared.defaultValue());
    }
}
