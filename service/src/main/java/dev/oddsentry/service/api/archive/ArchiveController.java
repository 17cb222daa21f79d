package dev.oddsentry.service.api.archive;

import dev.oddsentry.service.authoring.Kinds;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.retirement.Removal;
import dev.oddsentry.service.retirement.Retirement;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Retires definitions, restores them, and removes them for good. */
@RestController
@RequestMapping(path = "/api", produces = "application/json")
class ArchiveController {
    private final Retirement retirement;
    private final Removal removal;

    ArchiveController(Retirement retirement, Removal removal) {
        this.retirement = retirement;
        this.removal = removal;
    }

    @GetMapping("/archive")
    List<Retirement.RetiredDefinition> listArchive() {
        return retirement.all();
    }

    /** @param reason read by others in the archive */
    record RetireBody(@NotBlank @Size(max = 500) String reason) {}

    @PostMapping("/definitions/{kind}/{name}/retire")
    Retirement.RetiredDefinition retireDefinition(
            @AuthenticationPrincipal Person by,
            @PathVariable String kind,
            @PathVariable String name,
            @Valid @RequestBody RetireBody body) {
        return retirement.retire(by, Kinds.of(kind), name, body.reason());
    }

    @PostMapping("/definitions/{kind}/{name}/restore")
    void restoreDefinition(@AuthenticationPrincipal Person by, @PathVariable String kind, @PathVariable String name) {
        retirement.restore(by, Kinds.of(kind), name);
    }

    @GetMapping("/definitions/{kind}/{name}/removal")
    Removal.RemovalCounts previewRemoval(@PathVariable String kind, @PathVariable String name) {
        return removal.counts(Kinds.of(kind), name);
    }

    @DeleteMapping("/definitions/{kind}/{name}")
    Removal.RemovalCounts removeDefinition(
            @AuthenticationPrincipal Person by, @PathVariable String kind, @PathVariable String name) {
        return removal.remove(by, Kinds.of(kind), name);
    }
}
