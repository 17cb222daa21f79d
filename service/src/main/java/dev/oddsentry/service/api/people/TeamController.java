package dev.oddsentry.service.api.people;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Teams;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Email;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The teams that rules name as their owners. */
@RestController
@RequestMapping(path = "/api/teams", produces = "application/json")
class TeamController {
    private final Teams teams;

    TeamController(Teams teams) {
        this.teams = teams;
    }

    record TeamBody(@NotEmpty @Size(max = 500) List<@Email @Size(max = 254) String> addresses) {}

    @GetMapping
    List<Teams.Team> listTeams() {
        return teams.all();
    }

    @PreAuthorize("hasRole('OPERATOR')")
    @PutMapping("/{name}")
    Teams.Team saveTeam(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody TeamBody body) {
        return teams.save(by, name, body.addresses());
    }
}
