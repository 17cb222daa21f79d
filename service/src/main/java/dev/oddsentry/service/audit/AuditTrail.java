package dev.oddsentry.service.audit;

import static dev.oddsentry.service.db.generated.Tables.AUDIT_EVENT;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static org.jooq.impl.DSL.and;
import static org.jooq.impl.DSL.noCondition;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads who did what, newest first. */
@Component
public class AuditTrail {
    private static final int PAGE = 100;
    private static final int FETCH_SIZE = 2_000;

    private final DSLContext db;

    AuditTrail(DSLContext db) {
        this.db = db;
    }

    /** What an act is: what changed something, a look at data, or a log-in that succeeded or was refused. */
    public enum ActKind {
        CHANGES,
        LOOKS,
        LOG_INS
    }

    /**
     * @param login null where the service acted by itself, or nobody was logged in
     * @param subject the name of what it is about
     * @param detail what was said besides, such as the reason, or the state before and after
     */
    public record AuditEntry(
            long id,
            Instant at,
            @Nullable String login,
            @Nullable String name,
            AuditAct act,
            ActKind kind,
            String subject,
            @Nullable String detail) {}

    /** @param next to be given as {@code before} for the next page; null on the last */
    public record AuditPage(
            List<AuditEntry> entries, @Nullable Long next) {}

    /**
     * @param by a log-in name; null for everybody
     * @param sought in what it is about and in the detail; empty for all
     * @param before the number of the entry that the page before ended with; null for the newest
     */
    public record Ask(
            @Nullable String by,
            @Nullable ActKind kind,
            String sought,
            @Nullable Instant from,
            @Nullable Instant to,
            @Nullable Long before) {}

    public AuditPage page(Ask ask) {
        var entries = db.select(AUDIT_EVENT.fields())
                .select(PERSON.LOGIN, PERSON.NAME)
                .from(AUDIT_EVENT)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(AUDIT_EVENT.PERSON_ID))
                .where(condition(ask))
                .orderBy(AUDIT_EVENT.ID.desc())
                .limit(PAGE + 1)
                .fetch(AuditTrail::entry);
        if (entries.size() <= PAGE) return new AuditPage(entries, null);
        return new AuditPage(
                List.copyOf(entries.subList(0, PAGE)), entries.get(PAGE - 1).id());
    }

    /** All that match, newest first, however many they are. */
    @Transactional(readOnly = true)
    public void each(Ask ask, Consumer<AuditEntry> reader) {
        try (var rows = db.select(AUDIT_EVENT.fields())
                .select(PERSON.LOGIN, PERSON.NAME)
                .from(AUDIT_EVENT)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(AUDIT_EVENT.PERSON_ID))
                .where(condition(ask))
                .orderBy(AUDIT_EVENT.ID.desc())
                .fetchSize(FETCH_SIZE)
                .fetchLazy()) {
            rows.forEach(row -> reader.accept(entry(row)));
        }
    }

    private static AuditEntry entry(Record row) {
        var act = row.get(AUDIT_EVENT.ACT);
        return new AuditEntry(
                row.get(AUDIT_EVENT.ID),
                row.get(AUDIT_EVENT.AT),
                row.get(PERSON.LOGIN),
                row.get(PERSON.NAME),
                act,
                act.kind(),
                row.get(AUDIT_EVENT.SUBJECT),
                row.get(AUDIT_EVENT.DETAIL));
    }

    private static Condition condition(Ask ask) {
        String sought = ask.sought().strip();
        return and(
                ask.by() == null
                        ? noCondition()
                        : PERSON.LOGIN.eq(ask.by().strip().toLowerCase(Locale.ROOT)),
                ask.kind() == null ? noCondition() : AUDIT_EVENT.ACT.in(AuditAct.of(ask.kind())),
                sought.isEmpty()
                        ? noCondition()
                        : AUDIT_EVENT
                                .SUBJECT
                                .containsIgnoreCase(sought)
                                .or(AUDIT_EVENT.DETAIL.containsIgnoreCase(sought)),
                ask.from() == null ? noCondition() : AUDIT_EVENT.AT.ge(ask.from()),
                ask.to() == null ? noCondition() : AUDIT_EVENT.AT.lt(ask.to()),
                ask.before() == null ? noCondition() : AUDIT_EVENT.ID.lt(ask.before()));
    }
}
