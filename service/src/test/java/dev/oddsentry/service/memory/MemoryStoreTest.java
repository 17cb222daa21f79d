package dev.oddsentry.service.memory;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.CurrentFinding;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.ids.RuleId;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The current state, as it stands in the table, is what a check is compared with. */
class MemoryStoreTest {
    private final RunningService service = RunningService.get();
    private final DSLContext db = service.bean(DSLContext.class);
    private final MemoryStore store = service.bean(MemoryStore.class);
    private final RuleId rule = RuleId.random();
    private final Scope whole = Scope.of(rule);
    /** Whatever people write may stand in a key. */
    private final Scope copy = new Scope(rule, "Gråvik's \\ \"own\"");

    private static MinimumDuration.@Nullable Start start(Random random) {
        if (random.nextBoolean()) return null;
        // As fine as PostgreSQL keeps it, before its epoch of 2000 too.
        var slot = Instant.ofEpochSecond(
                random.nextLong(-1_000_000_000L, 4_000_000_000L), random.nextInt(1_000_000) * 1_000L);
        return new MinimumDuration.Start(random.nextLong(1L << 40), slot);
    }

    private Map<Digest, CurrentFinding> insert(Scope scope, int findings) {
        var random = new Random(findings + (scope.copy() == null ? 0 : 1));
        var inserted = new HashMap<Digest, CurrentFinding>();
        for (int i = 0; i < findings; i++) {
            var key = new Digest(random.nextLong(), random.nextLong());
            var now = new CurrentFinding(
                    FindingState.values()[random.nextInt(FindingState.values().length)],
                    Severity.values()[random.nextInt(3)],
                    new Digest(random.nextLong(), random.nextLong()),
                    start(random),
                    start(random),
                    start(random),
                    random.nextBoolean());
            inserted.put(key, now);
            var row = db.newRecord(FINDING);
            row.setRuleId(rule);
            row.setCopyKey(scope.copy());
            row.setKey(key.asUuid());
            row.setIdentity(JSONB.valueOf("[]"));
            row.setState(now.state());
            row.setSeverity(now.severity());
            row.setFingerprint(now.fingerprint().asUuid());
            row.setOpenedAt(Instant.EPOCH);
            row.setChangedAt(Instant.EPOCH);
            row.setRow(JSONB.valueOf("{}"));
            row.setNoData(now.noData());
            if (now.held() != null) {
                row.setLastingOrdinal(now.held().ordinal());
                row.setLastingSlot(now.held().slot());
            }
            if (now.missed() != null) {
                row.setAbsentOrdinal(now.missed().ordinal());
                row.setAbsentSlot(now.missed().slot());
            }
            if (now.better() != null) {
                row.setBetterOrdinal(now.better().ordinal());
                row.setBetterSlot(now.better().slot());
            }
            row.insert();
        }
        return inserted;
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 700})
    void everyFindingIsReadAsItStands(int findings) {
        try {
            var inserted = insert(whole, findings);
            var ofCopy = insert(copy, 3);
            isRead(whole, inserted);
            isRead(copy, ofCopy);
            // The connection is as good as before.
            isRead(whole, inserted);
            assertThat(store.known(new Scope(rule, "another")).countOf(FindingState.OPEN))
                    .isZero();
        } finally {
            db.deleteFrom(FINDING).where(FINDING.RULE_ID.eq(rule)).execute();
        }
    }

    private void isRead(Scope scope, Map<Digest, CurrentFinding> inserted) {
        var known = store.known(scope);
        for (var state : FindingState.values())
            assertThat(known.countOf(state))
                    .isEqualTo(inserted.values().stream()
                            .filter(now -> now.state() == state)
                            .count());
        inserted.forEach((key, now) -> {
            var found = known.find(key);
            assertThat(found).isNotNull();
            assertThat(found.now()).isEqualTo(now);
        });
        assertThat(known.find(new Digest(1, 2))).isNull();
    }

    @Test
    void theFewThatMayTellThoughTheyDoNotMoveAreFound() {
        try {
            insert(whole, 50);
            insert(copy, 50);
            db.update(FINDING)
                    .set(FINDING.UNREPORTED, FINDING.ID.mod(5).eq(0L))
                    .where(FINDING.RULE_ID.eq(rule))
                    .execute();
            for (var scope : List.of(whole, copy)) {
                var expected = db.select(FINDING.KEY)
                        .from(FINDING)
                        .where(FINDING.RULE_ID.eq(rule), FINDING.COPY_KEY.isNotDistinctFrom(scope.copy()))
                        .and(FINDING.ID.mod(5).eq(0L).or(FINDING.STATE.eq(FindingState.PENDING)))
                        .fetchSet(row -> Digest.of(row.value1()));
                assertThat(store.mayTellUnmoved(scope)).isEqualTo(expected).isNotEmpty();
            }
        } finally {
            db.deleteFrom(FINDING).where(FINDING.RULE_ID.eq(rule)).execute();
        }
    }
}
