package dev.oddsentry.core.evaluation;

import dev.oddsentry.core.condition.Condition;
import dev.oddsentry.core.condition.SentenceWords;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.CellWords;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.value.CellText;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * What people call the things that a rule's conditions name, and so the rule's sentences.
 *
 * @param groups null where the rule evaluates rows
 * @param date on which thresholds are told
 */
public record RuleLabels(
        RuleDefinition.@Nullable GroupsDefinition groups, QueryDefinition query, Thresholds thresholds, LocalDate date)
        implements Condition.Labels {

    /** A condition of the rule in plain English. */
    public String sentence(String condition) {
        return Condition.sentence(condition, this);
    }

    /**
     * What is an exception: {@code each vessel that matches: the sum of litres is over 900}.
     *
     * @param condition {@code null} if every row or group is one
     */
    public String exceptions(@Nullable String condition) {
        String evaluated = groups == null ? "row" : groupName();
        if (groups != null && groups.per().isEmpty())
            return condition == null ? "the whole result" : "the whole result, if it matches: " + sentence(condition);
        return condition == null ? "each " + evaluated : "each " + evaluated + " that matches: " + sentence(condition);
    }

    /**
     * Why a message was sent. English has a clause, {@code rows match the condition: late by more than 15 min}; other languages have the
     * condition alone, {@code Verspätung ist größer als 15 min}.
     *
     * @param condition {@code null} if every row or group is an exception
     */
    public String because(@Nullable String condition, Language language) {
        if (language != Language.EN)
            return condition == null ? "–" : Condition.sentence(condition, this, language.locale());
        if (condition == null) return groups == null ? "the query returned rows" : "the query returned groups";
        if (groups == null) return "rows match the condition: " + sentence(condition);
        String group = groups.per().isEmpty() ? "the result as a whole" : article(groupName());
        return group + " matches the condition: " + sentence(condition);
    }

    private String groupName() {
        return groups == null
                ? ""
                : String.join(" and ", groups.per().stream().map(this::small).toList());
    }

    private static String article(String noun) {
        return ("aeiou".indexOf(noun.charAt(0)) >= 0 ? "an " : "a ") + noun;
    }

    private String small(String column) {
        return column(column).text().toLowerCase(Locale.ROOT);
    }

    @Override
    public Condition.Label column(String name) {
        var measure = groups == null ? null : groups.measures().get(name);
        if (measure != null)
            return new Condition.Label(
                    measure.label() == null ? name.replace('_', ' ') : measure.label(), measure.unit());
        var meaning = query.columns().get(name);
        if (meaning != null) return new Condition.Label(meaning.label(), meaning.unit());
        boolean evaluation = groups != null && name.contains("(");
        return new Condition.Label(evaluation ? capital(Condition.noun(name, this)) : name, null);
    }

    /** What the query says of a column; nothing of one that the rule calculates. */
    public QueryDefinition.ColumnMeaning meaning(String name) {
        boolean evaluation = groups != null && groups.measures().containsKey(name);
        return evaluation ? QueryDefinition.ColumnMeaning.named(name) : query.meaningOf(name);
    }

    /** A value of a column as people read it, without the unit: the word of a code, a number in its format. */
    public String value(String column, Object value, ZoneId zone) {
        var meaning = meaning(column);
        return CellWords.of(value, meaning.words(), meaning.format(), zone, Language.EN);
    }

    /**
     * Where a value of a column leads; null for nowhere.
     *
     * @param row its values by column; null for one that is missing, or that the row does not have
     */
    public @Nullable String link(String column, Function<String, @Nullable Object> row, ZoneId zone) {
        var link = meaning(column).link();
        if (link == null) return null;
        return link.to(each -> {
                    Object value = row.apply(each);
                    return value == null ? null : CellText.of(value, zone);
                })
                .orElse(null);
    }

    private static String capital(String noun) {
        String bare = noun.startsWith("the ") ? noun.substring(4) : noun;
        return bare.isEmpty() ? noun : bare.substring(0, 1).toUpperCase(Locale.ROOT) + bare.substring(1);
    }

    @Override
    public String threshold(String name, Locale locale) {
        var words = SentenceWords.in(locale);
        return hasValue(name) ? inForce(name, locale) : words.of("threshold.the", inForce(name, locale));
    }

    /** A threshold of the rule as a message lists it: {@code 15 min (threshold late minutes)}, or its name if its value depends on the row. */
    public String inForce(String name, Locale locale) {
        var words = SentenceWords.in(locale);
        var table = thresholds.find(name).orElse(null);
        if (table == null) return name;
        if (!table.key().isEmpty()) return table.title();
        var value = table.on(date).get(List.<String>of());
        return value == null
                ? words.of("threshold.unset", table.title())
                : words.of(
                        "threshold",
                        CellText.of(value, ZoneOffset.UTC) + (table.unit() == null ? "" : " " + table.unit()),
                        table.title());
    }

    /** The value in force of a threshold that has one for all; null for one by key, or without a value. */
    public @Nullable Object thresholdValue(String name) {
        return thresholds
                .find(name)
                .filter(table -> table.key().isEmpty())
                .map(table -> table.on(date).get(List.<String>of()))
                .orElse(null);
    }

    private boolean hasValue(String name) {
        return thresholds
                .find(name)
                .filter(table -> table.key().isEmpty())
                .map(table -> table.on(date).get(List.<String>of()))
                .isPresent();
    }
}
