package dev.oddsentry.service.api.archive;

import dev.oddsentry.service.authoring.Kinds;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Teams;
import dev.oddsentry.service.retirement.TeamEstate;
import dev.oddsentry.service.visibility.Visibility;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What teams own: seen, handed over, renamed along. */
@RestController
@RequestMapping(path = "/api/teams/{name}", produces = "application/json")
class TeamEstateController {
    private final TeamEstate estate;
    private final Visibility visibility;

    TeamEstateController(TeamEstate estate, Visibility visibility) {
        this.visibility = visibility;
        this.estate = estate;
    }

    @GetMapping("/definitions")
    List<TeamEstate.TeamDefinition> listTeamDefinitions(@PathVariable String name) {
        var visible = visibility.now();
        return estate.of(name).stream()
                .filter(each -> visible.includes(Kinds.of(each.kind()), each.name()))
                .toList();
    }

    /** @param to the team that takes it */
    record HandOverBody(
            @NotBlank String to, @Nullable @Size(max = 500) String reason) {}

    @PostMapping("/hand-over")
    List<TeamEstate.TeamDefinition> handOver(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody HandOverBody body) {
        return estate.handOver(by, name, body.to(), body.reason() == null ? "" : body.reason());
    }

    record RenameBody(@NotBlank @Size(max = 200) String name) {}

    @PostMapping("/rename")
    Teams.Team renameTeam(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody RenameBody body) {
        return estate.rename(by, name, body.name());
    }

    @DeleteMapping
    void removeTeam(@AuthenticationPrincipal Person by, @PathVariable String name) {
        estate.remove(by, name);
    }
}
