package dev.oddsentry.service.messages;

import dev.oddsentry.core.definition.DeliveryDefinition.AlsoSent;
import dev.oddsentry.core.definition.LayoutDefinition;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.layouts.QueryRows;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.queries.QueryFailureException;
import dev.oddsentry.service.queries.QueryRunner;
import dev.oddsentry.service.sources.Sources;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Reads the rows of other queries that go with a rule's mails: once for a check, for all audiences. */
@Component
class AdditionalRows {
    /** They go to people, and are held until they are written. */
    private static final int MOST_ROWS = 100_000;

    private final DefinitionStore definitions;
    private final Sources sources;
    private final QueryRunner queries;

    AdditionalRows(DefinitionStore definitions, Sources sources, QueryRunner queries) {
        this.definitions = definitions;
        this.sources = sources;
        this.queries = queries;
    }

    /** One query's. @param split the place of the column by which the rule is split; null where it is not */
    record Rows(
            AlsoSent asked,
            QueryDefinition query,
            QueryRows laidOut,
            List<@Nullable Object[]> all,
            @Nullable Integer split) {

        /** Those of an audience: nobody sees the rows of another. @param values of the split, as text */
        List<@Nullable Object[]> of(MessageContext context, Set<String> values) {
            if (split == null) return all;
            return all.stream()
                    .filter(row -> values.contains(
                            row[split] == null
                                    ? ""
                                    : CellText.of(row[split], context.rule().zone())))
                    .toList();
        }
    }

    /**
     * @throws CheckFailureException if one of them cannot be read; without its rows the mail would say less than it was asked to
     */
    List<Rows> read(MessageContext context) {
        var all = new ArrayList<Rows>();
        for (var also : context.rule().delivery().alsoSent()) all.add(read(context, also));
        return all;
    }

    private Rows read(MessageContext context, AlsoSent also) {
        var query = definitions
                .query(also.query())
                .orElseThrow(() -> failed(also, "is gone", null))
                .definition();
        var rows = new ArrayList<@Nullable Object[]>();
        var columns = new AtomicReference<Columns>();
        try {
            var values = Parameters.valuesAt(context.moment(), context.rule(), query);
            queries.readAll(sources.require(query.source()), query, values, found -> {
                columns.set(found);
                return row -> {
                    if (rows.size() == MOST_ROWS) throw failed(also, "gives more than " + MOST_ROWS + " rows", null);
                    rows.add(row.clone());
                };
            });
        } catch (QueryFailureException unread) {
            throw failed(also, "cannot be read: " + unread.getMessage(), unread);
        }
        var found = Objects.requireNonNull(columns.get());
        var split = context.rule().delivery().split();
        return new Rows(
                also, query, laidOut(also, query, found), rows, split == null ? null : found.require(split.by()));
    }

    private QueryRows laidOut(AlsoSent also, QueryDefinition query, Columns columns) {
        var layout = also.layout() == null
                ? LayoutDefinition.USUAL
                : definitions
                        .layout(also.layout())
                        .orElseThrow(() -> failed(also, "has lost its layout " + also.layout(), null))
                        .definition()
                        .layout();
        return new QueryRows(query, columns, layout);
    }

    private static CheckFailureException failed(AlsoSent also, String what, @Nullable Exception cause) {
        return new CheckFailureException(
                FailureKind.NAMED_QUERY,
                "The query " + also.query() + ", whose rows go with the mail, " + what + ".",
                cause);
    }
}
