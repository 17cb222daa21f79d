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
    record ValueBody(
            @Nullable List<@Size(max = 200) String> key,
            @Nullable LocalDate from,
            @Nullable BigDecimal number) {
        NewValue value() {
            return new NewValue(key == null ? List.of() : key, from, number);
        }
    }

    /**
     * @param remark why, for those who read it later
     * @param asKnown whether what other values find now is taken as known, rather than told
     */
    record ChangeBody(
            @Size(min = 1, max = 10_000) List<@Valid ValueBody> values,
            @NotBlank @Size(max = 1_000) String remark,
            @Nullable Boolean asKnown) {
        List<NewValue> newValues() {
            return values.stream().map(ValueBody::value).toList();
        }
    }

    record EffectBody(@Size(min = 1, max = 10_000) List<@Valid ValueBody> values) {
        List<NewValue> newValues() {
            return values.stream().map(ValueBody::value).toList();
        }
    }

    @GetMapping
    List<ThresholdViews.Summary> listThresholds() {
        return views.all();
    }

    @GetMapping("/{name}")
    ThresholdViews.Page getThreshold(@PathVariable String name) {
        return views.page(name);
    }

    /** Gives, plans or takes back values; all of them or none. */
    @PostMapping("/{name}/values")
    ThresholdViews.Page setThresholdValues(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody ChangeBody body) {
        changes.give(by, name, body.newValues(), body.remark(), Boolean.TRUE.equals(body.asKnown()));
        return views.page(name);
    }

    /** How many exceptions each rule that uses it finds now, and would find with these values. */
    @PostMapping("/{name}/effect")
    List<ThresholdEffect.OnRule> showThresholdEffect(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody EffectBody body) {
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
    ThresholdChanges.Imported importThresholdValues(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @RequestBody String text,
            @RequestParam @NotBlank String remark,
            @RequestParam(defaultValue = "false") boolean asKnown) {
        return changes.importCsv(by, name, text, remark, asKnown);
    }
}
