package dev.oddsentry.service.queries;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.QueryDefinition.Choices;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What a parameter may be: the values that are listed, or those that another query returns now. */
@Component
public class ParameterChoices {
    private static final int MOST = 1_000;
    private static final int MOST_CHARACTERS = 1_000;

    private final QueryViews views;
    private final QueryRunner runner;
    private final Sources sources;
    private final Clock clock;

    ParameterChoices(QueryViews views, QueryRunner runner, Sources sources, Clock clock) {
        this.views = views;
        this.runner = runner;
        this.sources = sources;
        this.clock = clock;
    }

    /** @param label the words for the value; the value itself where there are none */
    record ParameterChoice(String value, String label) {}

    /** @param more whether there are others that are not offered */
    public record ParameterChoiceList(List<ParameterChoice> choices, boolean more) {}

    /** @throws RefusedException if there is no such parameter, or the query that offers values cannot be run */
    public ParameterChoiceList of(String queryName, String parameter) {
        var query = views.require(queryName).definition();
        var declared = query.parameters().get(parameter);
        if (declared == null)
            throw RefusedException.notFound("The query " + queryName + " has no parameter " + parameter + "; it has "
                    + String.join(", ", query.parameters().keySet()) + ".");
        return switch (declared.choices()) {
            case null -> new ParameterChoiceList(List.of(), false);
            case Choices.Listed(var values) ->
                new ParameterChoiceList(
                        values.stream()
                                .map(value -> new ParameterChoice(value, value))
                                .toList(),
                        false);
            case Choices.OfQuery from -> ask(from);
        };
    }

    private ParameterChoiceList ask(Choices.OfQuery from) {
        var query = views.require(from.from()).definition();
        var moment = new Moment(clock.instant(), ZoneOffset.UTC);
        var values = new LinkedHashMap<String, @Nullable Object>();
        query.parameters().forEach((name, declared) -> {
            if (declared.defaultValue() == null && !declared.optional())
                throw RefusedException.invalid("The query " + query.name()
                        + " offers the choices, but needs a value for " + name + " itself; give that a default.");
            values.put(
                    name, declared.defaultValue() == null ? null : declared.valueAt(moment, declared.defaultValue()));
        });
        var seen = new LinkedHashMap<String, ParameterChoice>();
        boolean[] more = {false};
        try {
            runner.readAll(sources.require(query.source()), query, new QueryInput(values, moment.zone()), columns -> {
                int value = place(columns, from.value(), query);
                OptionalInt label = from.label() == null
                        ? OptionalInt.empty()
                        : OptionalInt.of(place(columns, from.label(), query));
                return row -> {
                    if (seen.size() >= MOST || isTooLong(row[value])) more[0] = true;
                    else choice(row, value, label).ifPresent(choice -> seen.putIfAbsent(choice.value(), choice));
                };
            });
        } catch (QueryFailureException failed) {
            throw RefusedException.invalid("The choices could not be read. " + failed.getMessage());
        }
        return new ParameterChoiceList(new ArrayList<>(seen.values()), more[0]);
    }

    /** Nobody chooses a text of that length. */
    private static boolean isTooLong(@Nullable Object cell) {
        return cell instanceof String text && text.length() > MOST_CHARACTERS;
    }

    private static int place(Columns columns, String name, QueryDefinition query) {
        return columns.indexOf(name, true)
                .orElseThrow(() -> RefusedException.invalid(
                        "The query " + query.name() + " offers the choices, but returns no column " + name + "."));
    }

    private static Optional<ParameterChoice> choice(@Nullable Object[] row, int value, OptionalInt label) {
        Object cell = row[value];
        if (cell == null) return Optional.empty();
        String text = CellText.of(cell, ZoneOffset.UTC);
        Object words = label.isPresent() ? row[label.getAsInt()] : null;
        return Optional.of(new ParameterChoice(text, words == null ? text : CellText.of(words, ZoneOffset.UTC)));
    }
}
