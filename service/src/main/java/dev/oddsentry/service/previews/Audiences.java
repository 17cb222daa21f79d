package dev.oddsentry.service.previews;

import dev.oddsentry.core.definition.DeliveryDefinition.Split;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.authoring.CheckedDrafts;
import dev.oddsentry.service.copies.CopyLookup;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.evaluation.PersonalCopy;
import dev.oddsentry.service.evaluation.Refusals;
import dev.oddsentry.service.messages.RowAddresses;
import dev.oddsentry.service.messages.SplitRecipients;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.queries.QueryRunner;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Who gets what of a rule that is being written, value by value or copy by copy, as the data is now. */
@Component
public class Audiences {
    /** More than a person reads; the number of all is said. */
    private static final int MOST = 500;

    private final CheckedDrafts drafts;
    private final DefinitionStore definitions;
    private final CopyLookup copies;
    private final SplitRecipients named;
    private final Schedules schedules;
    private final Sources sources;
    private final QueryRunner queries;
    private final Clock clock;

    Audiences(
            CheckedDrafts drafts,
            DefinitionStore definitions,
            CopyLookup copies,
            SplitRecipients named,
            Schedules schedules,
            Sources sources,
            QueryRunner queries,
            Clock clock) {
        this.drafts = drafts;
        this.definitions = definitions;
        this.copies = copies;
        this.named = named;
        this.schedules = schedules;
        this.sources = sources;
        this.queries = queries;
        this.clock = clock;
    }

    /** Where the recipients of a value or a copy come from. */
    public enum NamedBy {
        RULE,
        QUERY,
        COLUMN,
        /** The rule's other recipients. */
        OTHERS,
        NOBODY
    }

    /**
     * @param value as the split has it, or the key of the copy; the empty text for rows without one
     * @param rows how many rows of the query have it now; null for a copy
     * @param problem why the copy is not checked; null for none
     */
    public record AudienceView(
            String value,
            @Nullable Long rows,
            List<String> to,
            NamedBy namedBy,
            @Nullable String problem) {}

    /**
     * @param by the column of the split, or the key of the copies
     * @param audiences those with nobody first, then by value
     * @param all how many there are
     * @param nobody how many have no recipients
     */
    public record AudienceList(String by, List<AudienceView> audiences, int all, int nobody) {}

    /** @throws RefusedException if the rule has neither a split nor copies, or a query cannot be run */
    public AudienceList of(String document) {
        var rule = drafts.rule(document);
        var moment = schedules.moment(rule, clock.instant());
        return Refusals.inWords(() -> {
            var split = rule.delivery().split();
            if (rule.copies() != null) return ofCopies(rule, rule.copies().key());
            if (split == null)
                throw RefusedException.invalid(
                        "The rule has no split and no personal copies: all its recipients get the same.");
            return list(split.by(), ofSplit(rule, split, moment));
        });
    }

    private AudienceList ofCopies(RuleDefinition rule, String key) {
        return list(
                key,
                copies.all(rule, clock.instant()).stream()
                        .map(copy -> view(rule, copy))
                        .toList());
    }

    private static AudienceView view(RuleDefinition rule, PersonalCopy copy) {
        var others = rule.delivery().to();
        boolean own = !copy.to().isEmpty();
        return new AudienceView(
                copy.key(),
                null,
                own ? copy.to() : others,
                own ? NamedBy.QUERY : others.isEmpty() ? NamedBy.NOBODY : NamedBy.OTHERS,
                copy.problem());
    }

    /** What the rows of one value say. */
    private static final class Found {
        private long rows;
        private final Set<String> addresses = new LinkedHashSet<>();
    }

    private List<AudienceView> ofSplit(RuleDefinition rule, Split split, Moment moment) {
        var found = rows(rule, split, moment);
        // A value that is named but has no rows now is shown too: it may have some tomorrow, or be misspelt.
        var all = named.of(rule, moment, split);
        all.keySet().forEach(value -> found.computeIfAbsent(value, _ -> new Found()));
        var views = new ArrayList<AudienceView>();
        found.forEach((value, said) -> {
            var ofRule = split.to().getOrDefault(value, List.of());
            var ofQuery = all.getOrDefault(value, List.of());
            if (!ofRule.isEmpty()) views.add(view(value, said, ofRule, NamedBy.RULE));
            else if (!ofQuery.isEmpty()) views.add(view(value, said, ofQuery, NamedBy.QUERY));
            else if (!said.addresses.isEmpty())
                views.add(view(value, said, List.copyOf(said.addresses), NamedBy.COLUMN));
            else if (!rule.delivery().to().isEmpty())
                views.add(view(value, said, rule.delivery().to(), NamedBy.OTHERS));
            else views.add(view(value, said, List.of(), NamedBy.NOBODY));
        });
        return views;
    }

    private static AudienceView view(String value, Found said, List<String> to, NamedBy by) {
        return new AudienceView(value, said.rows, to, by, null);
    }

    private Map<String, Found> rows(RuleDefinition rule, Split split, Moment moment) {
        var query = definitions.query(rule.query()).orElseThrow().definition();
        var found = new TreeMap<String, Found>();
        queries.readAll(sources.require(query.source()), query, Parameters.valuesAt(moment, rule, query), columns -> {
            int by = columns.require(split.by());
            int address = split.address() == null ? -1 : columns.require(split.address());
            return row -> {
                var value = row[by];
                var of =
                        found.computeIfAbsent(value == null ? "" : CellText.of(value, moment.zone()), _ -> new Found());
                of.rows++;
                if (address >= 0) RowAddresses.named(row[address]).forEach(of.addresses::add);
            };
        });
        return found;
    }

    private static AudienceList list(String by, List<AudienceView> all) {
        var nobody =
                all.stream().filter(each -> each.namedBy() == NamedBy.NOBODY).toList();
        var others = all.stream().filter(each -> each.namedBy() != NamedBy.NOBODY);
        return new AudienceList(
                by, Stream.concat(nobody.stream(), others).limit(MOST).toList(), all.size(), nobody.size());
    }
}
