package dev.oddsentry.service.sources;

import static dev.oddsentry.service.db.generated.Tables.SOURCE;

import dev.oddsentry.core.schedule.ClosedHours;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.db.generated.tables.records.SourceRecord;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.secrets.SecretBox;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** The sources of this installation. */
@Component
public class Sources {
    private final DSLContext db;
    private final Clock clock;
    private final Audit audit;
    private final SecretBox secrets;

    Sources(DSLContext db, Clock clock, Audit audit, SecretBox secrets) {
        this.db = db;
        this.clock = clock;
        this.audit = audit;
        this.secrets = secrets;
        sealPasswordsInAddresses();
    }

    /** Addresses that were saved before passwords in them were refused: the password goes where passwords are. */
    private void sealPasswordsInAddresses() {
        for (var row : db.selectFrom(SOURCE).where(SOURCE.JDBC_URL.likeIgnoreCase("%password=%"))) {
            SourceAddress.passwordIn(row.getJdbcUrl())
                    .ifPresent(password -> row.setPasswordCipher(secrets.seal(password)));
            row.setJdbcUrl(SourceAddress.withoutPassword(row.getJdbcUrl()));
            row.setUpdatedAt(clock.instant());
            row.update();
        }
    }

    /**
     * @param password null keeps the one stored
     * @param teams whose members may use it; empty for all, null keeps those stored
     */
    public record Settings(
            String jdbcUrl,
            String username,
            @Nullable String password,
            long mostRows,
            Duration timeLimit,
            int mostConnections,
            @Nullable ClosedHours closedHours,
            Duration spread,
            @Nullable List<String> teams) {}

    public List<Source> all() {
        return db.selectFrom(SOURCE).orderBy(SOURCE.NAME).fetch(Sources::source);
    }

    public Optional<Source> find(String name) {
        return db.selectFrom(SOURCE).where(SOURCE.NAME.eq(name)).fetchOptional(Sources::source);
    }

    public Source require(String name) {
        return find(name).orElseThrow(() -> RefusedException.notFound("There is no source \"" + name + "\"."));
    }

    private static Source source(SourceRecord row) {
        return new Source(
                row.getId(),
                row.getName(),
                row.getJdbcUrl(),
                row.getUsername(),
                row.getMaxRows(),
                Duration.ofMillis(row.getTimeLimitMs()),
                row.getMaxConnections(),
                closedHours(row),
                Duration.ofSeconds(row.getSpreadSeconds()),
                row.getTeams() == null ? List.of() : List.of(row.getTeams()),
                row.getUpdatedAt());
    }

    private static @Nullable ClosedHours closedHours(SourceRecord row) {
        if (row.getClosedFrom() == null) return null;
        return new ClosedHours(row.getClosedFrom(), row.getClosedUntil(), ZoneId.of(row.getClosedZone()));
    }

    /** @throws RefusedException if the address is not allowed, or no password is given where one is needed */
    @Transactional
    public Source save(Person by, String name, Settings settings) {
        SourceAddress.parse(settings.jdbcUrl());
        byte[] cipher = settings.password() == null ? storedCipher(name, settings) : secrets.seal(settings.password());
        var row = db.newRecord(SOURCE);
        row.setId(UUID.randomUUID());
        row.setName(name);
        row.setJdbcUrl(settings.jdbcUrl());
        row.setUsername(settings.username());
        row.setPasswordCipher(cipher);
        row.setMaxRows(settings.mostRows());
        row.setTimeLimitMs((int) settings.timeLimit().toMillis());
        row.setMaxConnections(settings.mostConnections());
        var closed = settings.closedHours();
        row.setClosedFrom(closed == null ? null : closed.from());
        row.setClosedUntil(closed == null ? null : closed.until());
        row.setClosedZone(closed == null ? null : closed.zone().getId());
        row.setSpreadSeconds(Math.toIntExact(settings.spread().toSeconds()));
        var teams = settings.teams();
        row.setTeams(teams == null || teams.isEmpty() ? null : teams.toArray(String[]::new));
        row.setUpdatedAt(clock.instant());
        var changes = row.copy();
        changes.changed(SOURCE.ID, false);
        if (teams == null) changes.changed(SOURCE.TEAMS, false);
        db.insertInto(SOURCE)
                .set(row)
                .onConflict(SOURCE.NAME)
                .doUpdate()
                .set(changes)
                .execute();
        audit.record(db, by.id(), AuditAct.SAVE_SOURCE, name, settings.jdbcUrl() + words(teams));
        return require(name);
    }

    private static String words(@Nullable List<String> teams) {
        if (teams == null) return "";
        return teams.isEmpty() ? ", for every team" : ", for " + String.join(", ", teams);
    }

    /** The stored password goes to nobody but the server and the user that it was given for. */
    private byte[] storedCipher(String name, Settings settings) {
        var stored = db.selectFrom(SOURCE)
                .where(SOURCE.NAME.eq(name))
                .fetchOptional()
                .orElseThrow(() -> RefusedException.invalid("The new source \"" + name + "\" needs a password."));
        if (!stored.getJdbcUrl().equals(settings.jdbcUrl())
                || !stored.getUsername().equals(settings.username()))
            throw RefusedException.invalid(
                    "The address or the user of the source \"" + name + "\" changed. Enter its password again.");
        return stored.getPasswordCipher();
    }

    /** Part of the caller's transaction. */
    public void renameTeam(String from, String to) {
        for (var row : db.selectFrom(SOURCE).where(SOURCE.TEAMS.isNotNull())) {
            row.setTeams(Arrays.stream(row.getTeams())
                    .map(team -> team.equals(from) ? to : team)
                    .toArray(String[]::new));
            row.update();
        }
    }

    String passwordOf(Source source) {
        return secrets.open(db.select(SOURCE.PASSWORD_CIPHER)
                .from(SOURCE)
                .where(SOURCE.ID.eq(source.id()))
                .fetchSingle()
                .value1());
    }
}
