package dev.oddsentry.service.api.sources;

import dev.oddsentry.core.schedule.ClosedHours;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Teams;
import dev.oddsentry.service.sources.Lane;
import dev.oddsentry.service.sources.RoleRights;
import dev.oddsentry.service.sources.Source;
import dev.oddsentry.service.sources.SourceAddress;
import dev.oddsentry.service.sources.SourcePools;
import dev.oddsentry.service.sources.SourceTables;
import dev.oddsentry.service.sources.SourceZones;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.sql.SQLException;
import java.time.Duration;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping(path = "/api/sources", produces = "application/json")
class SourceController {
    private static final int TEST_SECONDS = 5;

    private final Sources sources;
    private final SourcePools pools;
    private final SourceTables tables;
    private final Visibility visibility;
    private final SourceZones zones;
    private final Teams known;

    SourceController(
            Sources sources,
            SourcePools pools,
            SourceTables tables,
            SourceZones zones,
            Visibility visibility,
            Teams known) {
        this.known = known;
        this.visibility = visibility;
        this.tables = tables;
        this.zones = zones;
        this.sources = sources;
        this.pools = pools;
    }

    /**
     * A source as the API tells it: without its password.
     *
     * @param teams whose members may use it; empty for all
     */
    record SourceView(
            String name,
            String jdbcUrl,
            String username,
            long maxRows,
            long timeLimitSeconds,
            int maxConnections,
            @Nullable String closed,
            long spreadSeconds,
            List<String> teams) {
        static SourceView of(Source source) {
            return new SourceView(
                    source.name(),
                    SourceAddress.withoutSecrets(source.jdbcUrl()),
                    source.username(),
                    source.mostRows(),
                    source.timeLimit().toSeconds(),
                    source.mostConnections(),
                    source.closedHours() == null ? null : source.closedHours().toString(),
                    source.spread().toSeconds(),
                    source.teams());
        }
    }

    /** @param teams whose members may use it; empty for all, null keeps those of a source that is there */
    record SourceBody(
            @NotBlank @Size(max = 2_000) String jdbcUrl,
            @NotBlank @Size(max = 200) String username,
            @Nullable @Size(max = 2_000) String password,
            @Nullable @Min(1) @Max(100_000_000) Long maxRows,
            @Nullable @Min(1) @Max(86_400) Integer timeLimitSeconds,
            @Nullable @Min(2) @Max(100) Integer maxConnections,
            @Nullable String closed,
            @Nullable @Min(0) @Max(60) Integer spreadSeconds,
            @Nullable @Size(max = 200) List<@NotBlank String> teams) {
        Sources.Settings settings() {
            return new Sources.Settings(
                    jdbcUrl,
                    username,
                    password,
                    maxRows == null ? 1_000_000 : maxRows,
                    Duration.ofSeconds(timeLimitSeconds == null ? 60 : timeLimitSeconds),
                    maxConnections == null ? 8 : maxConnections,
                    closed == null || closed.isBlank() ? null : closedHours(closed),
                    Duration.ofSeconds(spreadSeconds == null ? 0 : spreadSeconds),
                    teams == null ? null : teams.stream().distinct().toList());
        }
    }

    private static ClosedHours closedHours(String text) {
        try {
            return ClosedHours.parse(text);
        } catch (IllegalArgumentException refused) {
            throw RefusedException.invalid("closed: " + refused.getMessage());
        }
    }

    /** @param warnings what the role of the source may do that reading does not need */
    record SourceTestOutcome(boolean reached, String detail, List<String> warnings) {}

    /** @param test of the connection as it was saved: a source that does not answer now is saved all the same */
    record SavedSource(SourceView source, SourceTestOutcome test) {}

    @GetMapping
    List<SourceView> listSources() {
        return sources.all().stream()
                .filter(visibility::mayUse)
                .map(SourceView::of)
                .toList();
    }

    /** Its tables and views with their columns, as far as its user may see them. */
    @GetMapping("/{name}/tables")
    SourceTables.SourceCatalogue listTables(@PathVariable String name) {
        return tables.of(sources.require(name));
    }

    @PutMapping("/{name}")
    SavedSource saveSource(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody SourceBody body) {
        refuseUnknownTeams(body);
        var source = sources.save(by, name, body.settings());
        return new SavedSource(SourceView.of(source), test(source));
    }

    private void refuseUnknownTeams(SourceBody body) {
        if (body.teams() == null) return;
        for (String team : body.teams())
            if (!known.names().contains(team))
                throw RefusedException.invalid("teams: there is no team \"" + team + "\". Save the team first.");
    }

    @PostMapping("/{name}/test")
    SourceTestOutcome testSource(@PathVariable String name) {
        return test(sources.require(name));
    }

    private SourceTestOutcome test(Source source) {
        try (var connection = pools.open(source, Lane.BY_HAND)) {
            if (!connection.isValid(TEST_SECONDS))
                return new SourceTestOutcome(false, "The source does not answer.", List.of());
            return new SourceTestOutcome(
                    true, "The source answers.", RoleRights.read(connection).warnings());
        } catch (SQLException e) {
            return new SourceTestOutcome(false, "The source does not answer: " + e.getMessage(), List.of());
        }
    }

    /** @param zone in which the source's own tools show times; UTC where it cannot be asked */
    record SourceZoneView(String zone) {}

    @GetMapping("/{name}/zone")
    SourceZoneView getSourceZone(@PathVariable String name) {
        return new SourceZoneView(zones.of(sources.require(name)).getId());
    }
}
