package dev.oddsentry.service.api.people;

import dev.oddsentry.service.people.Memberships;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.TeamSignature;
import dev.oddsentry.service.people.Teams;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Email;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
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
    private final Memberships memberships;

    TeamController(Teams teams, Memberships memberships) {
        this.teams = teams;
        this.memberships = memberships;
    }

    /** @param signature how the team's messages end; null to keep the present one */
    record TeamBody(
            @NotEmpty @Size(max = 500) List<@Email @Size(max = 254) String> addresses,
            @Nullable @Size(max = 1000) String signature) {}

    @GetMapping
    List<Teams.Team> listTeams() {
        return teams.all();
    }

    @PutMapping("/{name}")
    Teams.Team saveTeam(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody TeamBody body) {
        return teams.save(by, name, body.addresses(), body.signature());
    }

    record MembersBody(@NotNull @Size(max = 2_000) List<@NotBlank String> members) {}

    @PutMapping("/{name}/members")
    List<String> saveTeamMembers(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody MembersBody body) {
        return memberships.putMembers(by, name, body.members());
    }

    @GetMapping(
            path = "/{name}/logo",
            produces = {"image/png", "image/jpeg"})
    ResponseEntity<byte[]> getTeamLogo(@PathVariable String name) {
        var logo = teams.logo(name).orElseThrow(() -> RefusedException.notFound("The team " + name + " has no logo."));
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(logo.mediaType()))
                .header("Content-Security-Policy", "default-src 'none'")
                .body(logo.bytes());
    }

    @PutMapping(
            path = "/{name}/logo",
            consumes = {"image/png", "image/jpeg"})
    void saveTeamLogo(@AuthenticationPrincipal Person by, @PathVariable String name, @RequestBody byte[] picture) {
        keep(by, name, TeamLogo.of(picture));
    }

    @DeleteMapping("/{name}/logo")
    void deleteTeamLogo(@AuthenticationPrincipal Person by, @PathVariable String name) {
        keep(by, name, null);
    }

    private void keep(Person by, String name, TeamSignature.@Nullable Logo logo) {
        if (!teams.saveLogo(by, name, logo))
            throw RefusedException.notFound("There is no team \"" + name + "\". Save the team first.");
    }
}
