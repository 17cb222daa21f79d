package dev.oddsentry.service.people;

import static dev.oddsentry.service.db.generated.Tables.TEAM;
import static org.jooq.impl.DSL.excluded;

import dev.oddsentry.extracts.mail.Signature;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.people.TeamSignature.Logo;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** The teams that own rules, and where they are reached. A team that nobody entered is reached through the operators. */
@Component
public class Teams {
    private final DSLContext db;
    private final Audit audit;
    private final Clock clock;
    private final Memberships memberships;
    private final Operators operators;

    Teams(DSLContext db, Audit audit, Clock clock, Memberships memberships, Operators operators) {
        this.memberships = memberships;
        this.operators = operators;
        this.db = db;
        this.audit = audit;
        this.clock = clock;
    }

    /**
     * @param signature how its messages end; empty for nothing
     * @param hasLogo whether they end with a picture too
     * @param members their log-in names
     */
    public record Team(String name, List<String> addresses, String signature, boolean hasLogo, List<String> members) {}

    public List<Team> all() {
        return db.select(TEAM.NAME, TEAM.ADDRESSES, TEAM.SIGNATURE, TEAM.LOGO.isNotNull())
                .from(TEAM)
                .orderBy(TEAM.NAME)
                .fetch(row -> new Team(
                        row.value1(),
                        List.of(row.value2()),
                        row.value3(),
                        row.value4(),
                        memberships.membersOf(row.value1())));
    }

    public List<String> names() {
        return all().stream().map(Team::name).toList();
    }

    public List<String> allAddresses() {
        return all().stream().flatMap(team -> team.addresses().stream()).toList();
    }

    /** Those of the operators for a team that nobody entered. */
    public List<String> addressesOf(String team) {
        return db.select(TEAM.ADDRESSES)
                .from(TEAM)
                .where(TEAM.NAME.eq(team))
                .fetchOptional(row -> List.of(row.value1()))
                .orElseGet(operators::addresses);
    }

    /** The teams that have the address among theirs. */
    public List<String> reachedAt(String address) {
        return all().stream()
                .filter(team -> team.addresses().stream().anyMatch(address::equalsIgnoreCase))
                .map(Team::name)
                .toList();
    }

    /** Part of the caller's transaction. */
    public void replaceAddress(String team, String from, String to) {
        var addresses = addressesOf(team).stream()
                .map(each -> each.equalsIgnoreCase(from) ? to : each)
                .distinct()
                .toArray(String[]::new);
        db.update(TEAM)
                .set(TEAM.ADDRESSES, addresses)
                .set(TEAM.UPDATED_AT, clock.instant())
                .where(TEAM.NAME.eq(team))
                .execute();
    }

    /** How the messages of a team end; nothing for a team that nobody entered. */
    public TeamSignature signature(String team) {
        return db.select(TEAM.SIGNATURE, TEAM.LOGO, TEAM.LOGO_MEDIA_TYPE)
                .from(TEAM)
                .where(TEAM.NAME.eq(team))
                .fetchOptional(row -> new TeamSignature(
                        new Signature(team, row.value1(), row.value2() != null),
                        row.value2() == null ? null : new Logo(row.value2(), String.valueOf(row.value3()))))
                .orElse(TeamSignature.NONE);
    }

    public Optional<Logo> logo(String team) {
        return Optional.ofNullable(signature(team).logo());
    }

    /** @param signature null to keep the present one */
    @Transactional
    public Team save(Person by, String name, List<String> addresses, @Nullable String signature) {
        db.insertInto(TEAM)
                .set(TEAM.NAME, name)
                .set(TEAM.ADDRESSES, addresses.toArray(String[]::new))
                .set(TEAM.SIGNATURE, signature == null ? "" : signature.strip())
                .set(TEAM.UPDATED_AT, clock.instant())
                .onConflict(TEAM.NAME)
                .doUpdate()
                .set(TEAM.ADDRESSES, excluded(TEAM.ADDRESSES))
                .set(TEAM.SIGNATURE, signature == null ? TEAM.SIGNATURE : excluded(TEAM.SIGNATURE))
                .set(TEAM.UPDATED_AT, excluded(TEAM.UPDATED_AT))
                .execute();
        audit.record(db, by.id(), AuditAct.SAVE_TEAM, name, String.join(", ", addresses));
        return all().stream()
                .filter(team -> team.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    /**
     * Its members and saved filters go along. Part of the caller's transaction.
     *
     * @return false if there is no such team
     */
    public boolean rename(String from, String to) {
        return db.update(TEAM).set(TEAM.NAME, to).where(TEAM.NAME.eq(from)).execute() == 1;
    }

    /** Its memberships and saved filters go with it. Part of the caller's transaction. */
    public void remove(String name) {
        db.deleteFrom(TEAM).where(TEAM.NAME.eq(name)).execute();
    }

    /** @return false if there is no such team */
    @Transactional
    public boolean saveLogo(Person by, String name, @Nullable Logo logo) {
        int saved = db.update(TEAM)
                .set(TEAM.LOGO, logo == null ? null : logo.bytes())
                .set(TEAM.LOGO_MEDIA_TYPE, logo == null ? null : logo.mediaType())
                .set(TEAM.UPDATED_AT, clock.instant())
                .where(TEAM.NAME.eq(name))
                .execute();
        if (saved > 0) audit.record(db, by.id(), AuditAct.SAVE_TEAM, name, logo == null ? "logo removed" : "logo");
        return saved > 0;
    }
}
