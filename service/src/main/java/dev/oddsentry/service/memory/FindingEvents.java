package dev.oddsentry.service.memory;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.val;

import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.service.ids.MessageId;
import java.time.Clock;
import java.util.List;
import java.util.Set;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The history of findings: written, and nothing is decided from it. */
@Component
class FindingEvents {
    private final DSLContext db;
    private final Clock clock;

    FindingEvents(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** What is the same of many events but for the finding. */
    record Kind(FindingEventKind kind, Severity severity, Set<UpdateKind> updates) {
        Kind(FindingEventKind kind, Severity severity) {
            this(kind, severity, Set.of());
        }
    }

    static String[] codes(Set<UpdateKind> kinds) {
        return kinds.stream().sorted().map(UpdateKind::code).toArray(String[]::new);
    }

    /** One statement for many findings. */
    void record(MemoryWriter.Writing by, Kind kind, List<Long> findings, @Nullable MessageId messageId) {
        var now = clock.instant();
        for (var some : Batches.of(findings)) {
            db.insertInto(FINDING_EVENT)
                    .columns(
                            FINDING_EVENT.AT,
                            FINDING_EVENT.FINDING_ID,
                            FINDING_EVENT.CHECK_ID,
                            FINDING_EVENT.SLOT,
                            FINDING_EVENT.KIND,
                            FINDING_EVENT.SEVERITY,
                            FINDING_EVENT.MESSAGE_ID,
                            FINDING_EVENT.UPDATES)
                    .select(select(
                                    val(now, FINDING_EVENT.AT),
                                    Batches.WANTED_ID,
                                    val(by.checkId(), FINDING_EVENT.CHECK_ID),
                                    val(by.slot()),
                                    val(kind.kind(), FINDING_EVENT.KIND),
                                    val(kind.severity(), FINDING.SEVERITY),
                                    val(messageId, FINDING_EVENT.MESSAGE_ID),
                                    val(kind.updates().isEmpty() ? null : codes(kind.updates()), FINDING_EVENT.UPDATES))
                            .from(Batches.wanted(some)))
                    .execute();
        }
    }
}
