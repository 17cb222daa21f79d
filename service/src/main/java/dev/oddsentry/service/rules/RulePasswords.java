package dev.oddsentry.service.rules;

import static dev.oddsentry.service.db.generated.Tables.RULE_PASSWORD;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.secrets.SecretBox;
import java.time.Clock;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** The passwords with which rules encrypt their files: kept sealed, used, and never given out. */
@Component
public class RulePasswords {
    private final DSLContext db;
    private final SecretBox box;
    private final Audit audit;
    private final Clock clock;

    RulePasswords(DSLContext db, SecretBox box, Audit audit, Clock clock) {
        this.db = db;
        this.box = box;
        this.audit = audit;
        this.clock = clock;
    }

    /** @param rule null for one that was never saved, which has none */
    public Optional<String> of(@Nullable RuleId rule) {
        if (rule == null) return Optional.empty();
        return db.select(RULE_PASSWORD.SEALED)
                .from(RULE_PASSWORD)
                .where(RULE_PASSWORD.RULE_ID.eq(rule))
                .fetchOptional(row -> box.open(row.value1()));
    }

    @Transactional
    public void set(Person by, RuleId rule, String name, String password) {
        db.insertInto(RULE_PASSWORD)
                .set(RULE_PASSWORD.RULE_ID, rule)
                .set(RULE_PASSWORD.SEALED, box.seal(password))
                .set(RULE_PASSWORD.SET_AT, clock.instant())
                .onConflict(RULE_PASSWORD.RULE_ID)
                .doUpdate()
                .setAllToExcluded()
                .execute();
        audit.record(db, by.id(), AuditAct.SET_FILE_PASSWORD, name, null);
    }
}
