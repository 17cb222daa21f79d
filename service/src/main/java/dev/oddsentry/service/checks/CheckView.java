package dev.oddsentry.service.checks;

import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.type.TypeReference;

/** A check as the API tells it. */
public record CheckView(
        UUID id,
        Instant slot,
        CheckOrigin origin,
        CheckState state,
        int attempt,
        int standsFor,
        String node,
        Instant startedAt,
        @Nullable Instant finishedAt,
        @Nullable Long rowsRead,
        @Nullable Long exceptions,
        @Nullable Long unknownRows,
        @Nullable Long notJudged,
        List<NotJudged> notJudgedGroups,
        List<PartCount> parts,
        @Nullable Integer news,
        @Nullable Integer messages,
        @Nullable String reason) {

    public static CheckView of(RuleCheckRecord row) {
        return new CheckView(
                row.getId(),
                row.getSlot(),
                row.getOrigin(),
                row.getState(),
                row.getAttempt(),
                row.getStandsFor(),
                row.getNode(),
                row.getStartedAt(),
                row.getFinishedAt(),
                row.getRowsRead(),
                row.getExceptions(),
                row.getUnknownRows(),
                row.getNotJudged(),
                row.getNotJudgedGroups() == null
                        ? List.of()
                        : Json.read(row.getNotJudgedGroups(), new TypeReference<List<NotJudged>>() {}),
                row.getParts() == null ? List.of() : Json.read(row.getParts(), new TypeReference<List<PartCount>>() {}),
                row.getNews(),
                row.getMessages(),
                row.getReason());
    }
}
