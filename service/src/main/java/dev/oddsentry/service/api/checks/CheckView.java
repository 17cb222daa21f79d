package dev.oddsentry.service.api.checks;

import dev.oddsentry.service.checks.WaitingFor;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.evaluation.CheckOrigin;
import dev.oddsentry.service.evaluation.PartCount;
import dev.oddsentry.service.evaluation.UnevaluatedGroup;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.rules.CheckState;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.type.TypeReference;

/** A check as the API tells it. */
public record CheckView(
        CheckId id,
        Instant slot,
        CheckOrigin origin,
        CheckState state,
        int attempt,
        int slotsCovered,
        String node,
        Instant startedAt,
        @Nullable Instant finishedAt,
        @Nullable Long rowsRead,
        @Nullable Long exceptions,
        @Nullable Long unknownRows,
        @Nullable Long unevaluated,
        List<UnevaluatedGroup> unevaluatedGroups,
        List<PartCount> parts,
        @Nullable Integer updates,
        @Nullable Integer messages,
        @Nullable FailureKind failure,
        @Nullable String reason,
        @Nullable Long rowsSoFar,
        @Nullable Integer tookMillis,
        @Nullable Integer timeLimitMillis,
        int failures,
        @Nullable Instant retryAt,
        @Nullable Instant readAt,
        @Nullable Integer ruleRevision,
        @Nullable Integer queryRevision,
        @Nullable Long opened,
        @Nullable Long cleared,
        Map<String, String> parameters,
        Map<String, Map<String, @Nullable BigDecimal>> thresholds,
        @Nullable WaitingFor waitingFor,
        @Nullable String event,
        @Nullable CheckId parentId) {

    public static CheckView of(RuleCheckRecord row) {
        return new CheckView(
                row.getId(),
                row.getSlot(),
                row.getOrigin(),
                row.getState(),
                row.getAttempt(),
                row.getSlotsCovered(),
                row.getNode(),
                row.getStartedAt(),
                row.getFinishedAt(),
                row.getRowsRead(),
                row.getExceptions(),
                row.getUnknownRows(),
                row.getUnevaluated(),
                row.getUnevaluatedGroups() == null
                        ? List.of()
                        : Json.read(row.getUnevaluatedGroups(), new TypeReference<List<UnevaluatedGroup>>() {}),
                row.getParts() == null ? List.of() : Json.read(row.getParts(), new TypeReference<List<PartCount>>() {}),
                row.getUpdates(),
                row.getMessages(),
                row.getFailure(),
                row.getReason(),
                row.getState() == CheckState.RUNNING ? row.getRowsSoFar() : null,
                row.getTookMs(),
                row.getTimeLimitMs(),
                row.getFailures(),
                row.getRetryAt(),
                row.getReadAt(),
                row.getRuleRevision(),
                row.getQueryRevision(),
                row.getOpened(),
                row.getCleared(),
                row.getParameters() == null ? Map.of() : Json.read(row.getParameters(), new TypeReference<>() {}),
                row.getThresholds() == null ? Map.of() : Json.read(row.getThresholds(), new TypeReference<>() {}),
                row.getWaitingFor(),
                row.getEvent(),
                row.getParentId());
    }
}
