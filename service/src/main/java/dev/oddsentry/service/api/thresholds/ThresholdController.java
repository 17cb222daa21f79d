package dev.oddsentry.service.api.thresholds;

import dev.oddsentry.service.authoring.ThresholdChanges;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.previews.ThresholdEffect;
import dev.oddsentry.service.thresholds.ThresholdStore.NewValue;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Thresholds: their values, past and planned, and what a change would do. */
@RestController
@RequestMapping(path = "/api/thresholds", produces = "application/json")
class ThresholdController {
    private final ThresholdViews views;
    private final ThresholdChanges changes;
    private final ThresholdEffect effect;

    ThresholdController(ThresholdViews views, ThresholdChanges changes, ThresholdEffect effect) {
        this.views = views;
        this.changes = changes;
        this.effect = effect;
    }

    /**
     * @param key none for the default
     * @param from the first date it applies; absent for always
     * @param number absent to take a value back
     */
    record ThresholdValueBody(
            @Nullable List<@Size(max = 200) String> key,
            @Nullable LocalDate from,
            @Nullable BigDecimal number) {
        NewValue value() {
            return new NewValue(key == null ? List.of() : key, from, number);
        }
    }

    /**
     * @param reason why, for those who read it later
     * @param treatAsKnown whether what other values find now is taken as known, rather than told
     */
    record ThresholdChangeBody(
            @Size(min = 1, max = 10_000) List<@Valid ThresholdValueBody> values,
            @NotBlank @Size(max = 1_000) String reason,
            @Nullable Boolean treatAsKnown) {
        List<NewValue> newValues() {
            return values.stream().map(ThresholdValueBody::value).toList();
        }
    }

    record ThresholdEffectBody(@Size(min = 1, max = 10_000) List<@Valid ThresholdValueBody> values) {
        List<NewValue> newValues() {
            return values.stream().map(ThresholdValueBody::value).toList();
        }
    }

    @GetMapping
    List<ThresholdViews.ThresholdSummary> listThresholds() {
        return views.all();
    }

    @GetMapping("/{name}")
    ThresholdViews.ThresholdPage getThreshold(@PathVariable String name) {
        return views.page(name);
    }

    /** Gives, plans or takes back values; all of them or none. */
    @PostMapping("/{name}/values")
    ThresholdViews.ThresholdPage setThresholdValues(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @Valid @RequestBody ThresholdChangeBody body) {
        changes.give(by, name, body.newValues(), body.reason(), Boolean.TRUE.equals(body.treatAsKnown()));
        return views.page(name);
    }

    /** How many exceptions each rule that uses it finds now, and would find with these values. */
    @PostMapping("/{name}/effect")
    List<ThresholdEffect.ThresholdEffectOnRule> showThresholdEffect(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @Valid @RequestBody ThresholdEffectBody body) {
        return effect.of(by, name, body.newValues());
    }

    @GetMapping(path = "/{name}/values.csv", produces = "text/csv")
    String exportThresholdValues(@PathVariable String name) {
        return views.csv(name);
    }

    /** Values as a table: the key's columns, from, number. Pasted from a spreadsheet, tabs and semicolons are read as well. */
    @PostMapping(
            path = "/{name}/values.csv",
            consumes = {"text/csv", "text/plain"})
    ThresholdChanges.ImportedThresholdValues importThresholdValues(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @RequestBody String text,
            @RequestParam @NotBlank String reason,
            @RequestParam(defaultValue = "false") boolean treatAsKnown) {
        return changes.importCsv(by, name, text, reason, treatAsKnown);
    }
}
