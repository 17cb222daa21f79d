package dev.oddsentry.service.authoring;

import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.util.List;
import org.springframework.stereotype.Component;

/** Documents that are not saved, checked as if they were to be. */
@Component
public class CheckedDrafts {
    private final DefinitionChecks checks;

    CheckedDrafts(DefinitionChecks checks) {
        this.checks = checks;
    }

    /** @throws InvalidDefinitionException with every problem and its place */
    public RuleDefinition rule(String text) {
        var document = Document.read(text);
        checks.check(document.definition(), document.places());
        if (document.definition() instanceof RuleDefinition rule) return rule;
        throw new InvalidDefinitionException(List.of(Problem.error(
                "this is a " + document.definition().kind().code() + "; a rule can be previewed",
                "kind",
                document.places().of("kind"))));
    }

    /** @throws InvalidDefinitionException with every problem and its place, those of rules that it would break among them */
    public QueryDefinition query(String text) {
        var document = Document.read(text);
        checks.check(document.definition(), document.places());
        if (document.definition() instanceof QueryDefinition query) return query;
        throw new InvalidDefinitionException(List.of(Problem.error(
                "this is a " + document.definition().kind().code() + "; a query is compared",
                "kind",
                document.places().of("kind"))));
    }

    /** Every problem of a document, warnings among them; empty where it could be saved as it is. */
    public List<Problem> problems(String text) {
        try {
            var document = Document.read(text);
            return checks.check(document.definition(), document.places()).warnings();
        } catch (InvalidDefinitionException refused) {
            return refused.problems();
        }
    }
}
