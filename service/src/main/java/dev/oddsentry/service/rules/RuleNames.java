package dev.oddsentry.service.rules;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.web.RefusedException;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Rules by the names that people and addresses use. */
@Component
public class RuleNames {
    private final DSLContext db;

    RuleNames(DSLContext db) {
        this.db = db;
    }

    /** @throws RefusedException if there is none, with the nearest name */
    public RuleId idOf(String name) {
        return db.select(DEFINITION.ID)
                .from(DEFINITION)
                .where(DEFINITION.KIND.eq(Kind.RULE), DEFINITION.NAME.eq(name))
                .fetchOptional(row -> new RuleId(row.value1()))
                .orElseThrow(() -> unknown(name));
    }

    private RefusedException unknown(String name) {
        var names = db.select(DEFINITION.NAME)
                .from(DEFINITION)
                .where(DEFINITION.KIND.eq(Kind.RULE), DEFINITION.RETIRED_AT.isNull())
                .fetch(DEFINITION.NAME);
        String near = Nearest.to(name, names)
                .map(nearest -> " Did you mean \"" + nearest + "\"?")
                .orElse("");
        return RefusedException.notFound("There is no rule \"" + name + "\"." + near);
    }
}
