package dev.oddsentry.service.api.backtests;

import dev.oddsentry.core.definition.MemoryDefinition;
import dev.oddsentry.service.backtests.BackTestResult;
import dev.oddsentry.service.backtests.BackTests;
import dev.oddsentry.service.backtests.BackTests.OnTrial;
import dev.oddsentry.service.backtests.WorkState;
import dev.oddsentry.service.backtests.WorkStore;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.LongWorkRecord;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.rules.RuleNames;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.core.type.TypeReference;

/** Back-tests and filling in history: asked for here, done in the background, looked at until they end. */
@RestController
@RequestMapping(path = "/api", produces = "application/json")
class BackTestController {
    private static final int MOST_LISTED = 20;

    private final BackTests backTests;
    private final WorkStore store;
    private final RuleNames names;

    BackTestController(BackTests backTests, WorkStore store, RuleNames names) {
        this.backTests = backTests;
        this.store = store;
        this.names = names;
    }

    /**
     * @param thresholds values on trial by name, each replacing all of that threshold's
     * @param conditions others for the rule's {@code exceptions}, each tried; alone
     * @param without settings of the memory, each left out in turn; alone
     * @param document a draft of the rule; absent for the rule as it is saved
     * @param copy which personal copy, where the rule has such
     */
    record BackTestBody(
            @Min(1) @Max(3660) int days,
            @Nullable @Size(max = 4) Map<String, @Size(min = 1, max = 12) List<BigDecimal>> thresholds,
            @Nullable @Size(max = 12) List<@NotBlank @Size(max = 20_000) String> conditions,
            @Nullable @Size(max = 12) List<MemoryDefinition.Setting> without,
            @Nullable @Size(max = 1_000_000) String document,
            @Nullable String copy) {
        OnTrial onTrial() {
            return new OnTrial(
                    thresholds == null ? Map.of() : thresholds,
                    conditions == null ? List.of() : conditions,
                    without == null ? List.of() : without);
        }
    }

    record BackfillBody(
            @Min(1) @Max(3660) int days, @Nullable String copy) {}

    /** @param result of a back-test that is done; null otherwise */
    record LongWorkView(
            UUID id,
            String kind,
            WorkState state,
            int stepsDone,
            int steps,
            Instant requestedAt,
            @Nullable Instant endedAt,
            @Nullable String reason,
            @Nullable BackTestResult result) {

        static LongWorkView of(LongWorkRecord row) {
            return new LongWorkView(
                    row.getId(),
                    row.getKind(),
                    row.getState(),
                    row.getStepsDone(),
                    row.getSteps(),
                    row.getRequestedAt(),
                    row.getEndedAt(),
                    row.getReason(),
                    row.getResult() == null
                            ? null
                            : Json.read(row.getResult(), new TypeReference<BackTestResult>() {}));
        }
    }

    /** Of a rule that need not be saved. */
    @PostMapping("/back-tests")
    @ResponseStatus(HttpStatus.ACCEPTED)
    LongWorkView backTestUnsavedRule(@AuthenticationPrincipal Person by, @Valid @RequestBody BackTestBody body) {
        if (body.document() == null) throw RefusedException.invalid("document is missing: the rule to try.");
        return getLongWork(backTests.backTest(by, body.days(), body.onTrial(), body.document(), body.copy()));
    }

    @PostMapping("/rules/{name}/back-tests")
    @ResponseStatus(HttpStatus.ACCEPTED)
    LongWorkView backTestRule(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody BackTestBody body) {
        return getLongWork(
                backTests.backTest(by, names.idOf(name), body.days(), body.onTrial(), body.document(), body.copy()));
    }

    @PostMapping("/rules/{name}/measurements/backfill")
    @ResponseStatus(HttpStatus.ACCEPTED)
    LongWorkView backfillMeasurements(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody BackfillBody body) {
        return getLongWork(backTests.fillHistory(by, names.idOf(name), body.days(), body.copy()));
    }

    @GetMapping("/rules/{name}/long-work")
    List<LongWorkView> listLongWork(@PathVariable String name) {
        return store.ofRule(names.idOf(name), MOST_LISTED).stream()
                .map(LongWorkView::of)
                .toList();
    }

    @GetMapping("/long-work/{id}")
    LongWorkView getLongWork(@PathVariable UUID id) {
        return store.find(id).map(LongWorkView::of).orElseThrow(() -> RefusedException.notFound("No such back-test."));
    }

    @PostMapping("/long-work/{id}/stop")
    LongWorkView stopLongWork(@AuthenticationPrincipal Person by, @PathVariable UUID id) {
        backTests.stop(by, id);
        return getLongWork(id);
    }
}
