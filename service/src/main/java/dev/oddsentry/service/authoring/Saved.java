package dev.oddsentry.service.authoring;

import dev.oddsentry.core.definition.EditClass;
import dev.oddsentry.core.problem.Problem;
import java.util.List;
import java.util.UUID;

/**
 * What came of a save.
 *
 * @param revision the revision that stands now
 * @param added addresses of a rule that hear of it from now on and did not before; what is open can be sent to them
 * @param effect what the edit does to the memory of the rule, or of the query's rules
 * @param changed false where the document said what was saved already, so that no revision was made
 */
public record Saved(
        String kind,
        UUID id,
        String name,
        int revision,
        boolean changed,
        EditClass effect,
        List<String> added,
        List<Problem> warnings) {
    Saved adding(List<String> addresses) {
        return new Saved(kind, id, name, revision, changed, effect, addresses, warnings);
    }
}
