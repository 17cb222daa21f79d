package dev.oddsentry.service.api.previews;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.previews.ConditionTrial;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping(path = "/api/queries/{name}/try", produces = "application/json")
class ConditionTrialController {
    private final ConditionTrial trial;
    private final Clock clock;

    ConditionTrialController(ConditionTrial trial, Clock clock) {
        this.trial = trial;
        this.clock = clock;
    }

    /**
     * @param per the columns of the groups that it evaluates, none for the whole result; absent where it evaluates rows
     * @param zone where windows and relative dates are calculated; UTC if absent
     */
    record ConditionTrialBody(
            @NotBlank @Size(max = 20_000) String condition,
            @Nullable Map<String, String> parameters,
            @Nullable List<String> per,
            @Nullable List<String> key,
            @Nullable String zone,
            @Nullable Instant at) {}

    @PostMapping
    ConditionTrial.ConditionTrialResult tryCondition(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @Valid @RequestBody ConditionTrialBody body) {
        var ask = new ConditionTrial.Ask(
                body.condition(),
                body.parameters() == null ? Map.of() : body.parameters(),
                body.per(),
                body.key() == null ? List.of() : body.key(),
                zone(body.zone()),
                body.at() == null ? clock.instant() : body.at());
        return trial.run(by, name, ask);
    }

    private static ZoneId zone(@Nullable String name) {
        try {
            return ZoneId.of(name == null ? "UTC" : name);
        } catch (DateTimeException unknown) {
            throw RefusedException.invalid("\"" + name + "\" is not a time zone. Example: Europe/Oslo");
        }
    }
}
