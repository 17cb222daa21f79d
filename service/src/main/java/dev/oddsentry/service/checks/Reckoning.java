package dev.oddsentry.service.checks;

import dev.oddsentry.core.condition.RowFailureException;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digester;
import dev.oddsentry.core.judging.RuleJudge;
import dev.oddsentry.core.judging.RuleJudges;
import dev.oddsentry.core.memory.Comparison;
import dev.oddsentry.core.memory.DuplicateIdentityException;
import dev.oddsentry.core.memory.Known;
import dev.oddsentry.core.memory.Sighting;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.config.Installation;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.queries.QueryRunner;
import dev.oddsentry.service.sources.Source;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Second step, outside any transaction of ours: reads the result, judges each row and compares it with memory as it streams. */
@Component
class Reckoning {
    private final QueryRunner queries;
    private final MemoryStore memory;
    private final Digester digester;

    Reckoning(QueryRunner queries, MemoryStore memory, Installation installation) {
        this.queries = queries;
        this.memory = memory;
        this.digester = installation.digester();
    }

    Reckoned reckon(Attempt attempt) {
        return reckon(
                attempt.rule().definition(),
                attempt.query().definition(),
                attempt.source(),
                attempt.moment(),
                memory.known(attempt.ruleId()));
    }

    /** The same for a preview, which has no attempt. */
    Reckoned reckon(RuleDefinition rule, QueryDefinition query, Source source, Moment moment, List<Known> known) {
        var rows = new Rows(rule, Parameters.move(rule, query), moment, known);
        var reading = queries.read(source, query, Parameters.valuesAt(moment, rule, query), rows::start);
        return new Reckoned(reading, rows.judge(), known, rows.comparison().finish(), rows.exceptions);
    }

    /** Takes the rows of one result. */
    private final class Rows {
        private final RuleDefinition rule;
        private final boolean parametersMove;
        private final Moment moment;
        private final List<Known> known;
        private final List<Sighting> exceptions = new ArrayList<>();
        private @Nullable RuleJudge judge;
        private @Nullable Comparison comparison;

        Rows(RuleDefinition rule, boolean parametersMove, Moment moment, List<Known> known) {
            this.rule = rule;
            this.parametersMove = parametersMove;
            this.moment = moment;
            this.known = known;
        }

        /** The rule is checked against the columns that came, since the source may have changed since it was saved. */
        QueryRunner.RowSink start(Columns columns) {
            var judges = RuleJudges.check(rule, columns, null).judges();
            judge = judges.at(moment, digester);
            comparison = new Comparison(known, judges.absence(rule, parametersMove));
            return this::accept;
        }

        private void accept(@Nullable Object[] row) {
            try {
                Sighting sighting = judge().judge(row);
                comparison().see(sighting);
                if (sighting.isException()) exceptions.add(sighting);
            } catch (RowFailureException e) {
                throw new CheckFailureException(
                        "The condition cannot be reckoned on the row " + words(judge().identityOf(row)) + ": "
                                + e.getMessage() + ".",
                        e);
            } catch (DuplicateIdentityException e) {
                String key = String.join(", ", rule.memory().key());
                throw new CheckFailureException(
                        "Two rows have the same identity (" + key + "): " + words(e.identity())
                                + ". Nothing was remembered; add columns to memory: key: so that each row is one finding.",
                        e);
            }
        }

        private String words(List<? extends @Nullable Object> identity) {
            return identity.stream()
                    .map(cell -> cell == null ? "missing" : CellText.of(cell, moment.zone()))
                    .collect(Collectors.joining(", "));
        }

        RuleJudge judge() {
            return Objects.requireNonNull(judge, "no columns yet");
        }

        Comparison comparison() {
            return Objects.requireNonNull(comparison, "no columns yet");
        }
    }
}
