package dev.oddsentry.service.api.overview;

import dev.oddsentry.service.overview.SavedFilters;
import dev.oddsentry.service.people.Person;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping(path = "/api/filters", produces = "application/json")
class SavedFilterController {
    private final SavedFilters filters;

    SavedFilterController(SavedFilters filters) {
        this.filters = filters;
    }

    /** @param team that shares the filter; null for one's own */
    record SavedFilterBody(
            @NotNull @Size(max = 2000) String filter,
            @Nullable @Size(max = 80) String team) {}

    @GetMapping
    List<SavedFilters.SavedFilter> listFilters(@AuthenticationPrincipal Person of) {
        return filters.of(of);
    }

    @PutMapping("/{name}")
    List<SavedFilters.SavedFilter> saveFilter(
            @AuthenticationPrincipal Person of,
            @PathVariable @Size(max = 80) String name,
            @Valid @RequestBody SavedFilterBody body) {
        return filters.save(of, name, body.filter(), body.team());
    }

    @DeleteMapping("/{name}")
    List<SavedFilters.SavedFilter> removeFilter(
            @AuthenticationPrincipal Person of,
            @PathVariable String name,
            @RequestParam(required = false) @Nullable String team) {
        return filters.remove(of, name, team);
    }
}
