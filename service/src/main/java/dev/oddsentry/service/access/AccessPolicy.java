package dev.oddsentry.service.access;

import static dev.oddsentry.service.db.generated.Tables.ACCESS_POLICY;
import static dev.oddsentry.service.db.generated.Tables.IDENTITY_PROVIDER;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static org.jooq.Records.mapping;
import static org.jooq.impl.DSL.val;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.util.Locale;
import java.util.Objects;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/**
 * Whether what a team owns is changed by its members alone, and whether passwords log people in. Until an operator says otherwise, every analyst changes
 * everything, and they do.
 */
@Component
public class AccessPolicy {
    private final DSLContext db;
    private final Clock clock;
    private final Audit audit;

    AccessPolicy(DSLContext db, Clock clock, Audit audit) {
        this.db = db;
        this.clock = clock;
        this.audit = audit;
    }

    /**
     * @param teamsDecide whether members of the owning team alone change what it owns
     * @param passwords whether people log in with passwords of this service
     * @param emergencyOperator the log-in name of who still does where others do not; null where none is named
     */
    public record AccessPolicyView(
            boolean teamsDecide,
            boolean passwords,
            @Nullable String emergencyOperator) {}

    public AccessPolicyView present() {
        return db.select(ACCESS_POLICY.TEAMS_DECIDE, ACCESS_POLICY.PASSWORDS, PERSON.LOGIN)
                .from(ACCESS_POLICY)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(ACCESS_POLICY.EMERGENCY_OPERATOR))
                .fetchSingle(mapping(AccessPolicyView::new));
    }

    public boolean teamsDecide() {
        return db.fetchSingle(ACCESS_POLICY).getTeamsDecide();
    }

    /** Whether somebody logs in with a password: anybody, or the emergency operator where nobody else does. */
    public boolean allowsPassword(Person person) {
        var policy = db.fetchSingle(ACCESS_POLICY);
        return policy.getPasswords() || person.id().equals(policy.getEmergencyOperator());
    }

    /** @throws RefusedException if passwords are to end and there is no other way in, or nobody who can log in if that fails */
    @Transactional
    public void save(Person by, AccessPolicyView wanted) {
        db.select(ACCESS_POLICY.PASSWORDS).from(ACCESS_POLICY).forUpdate().fetch();
        // One who is named already is looked at again only when it matters.
        boolean kept = wanted.passwords()
                && Objects.equals(wanted.emergencyOperator(), present().emergencyOperator());
        UUID emergency = kept || wanted.emergencyOperator() == null ? null : operator(wanted.emergencyOperator());
        if (!wanted.passwords()) {
            if (emergency == null)
                throw RefusedException.invalid(
                        "Name an operator who can still log in with a password when no identity provider answers.");
            if (!db.fetchExists(IDENTITY_PROVIDER, IDENTITY_PROVIDER.ACTIVE.isTrue()))
                throw RefusedException.invalid("Add an identity provider first. Nobody could log in without one.");
        }
        db.update(ACCESS_POLICY)
                .set(ACCESS_POLICY.TEAMS_DECIDE, wanted.teamsDecide())
                .set(ACCESS_POLICY.PASSWORDS, wanted.passwords())
                .set(
                        ACCESS_POLICY.EMERGENCY_OPERATOR,
                        kept ? ACCESS_POLICY.EMERGENCY_OPERATOR : val(emergency, ACCESS_POLICY.EMERGENCY_OPERATOR))
                .set(ACCESS_POLICY.CHANGED_AT, clock.instant())
                .execute();
        audit.record(db, by.id(), AuditAct.SAVE_ACCESS_POLICY, "log-in and teams", words(wanted));
    }

    private UUID operator(String login) {
        return db.select(PERSON.ID)
                .from(PERSON)
                .where(
                        PERSON.LOGIN.eq(login.strip().toLowerCase(Locale.ROOT)),
                        PERSON.ROLE.eq(Role.OPERATOR),
                        PERSON.ACTIVE.isTrue(),
                        PERSON.PASSWORD_HASH.isNotNull())
                .fetchOptional(PERSON.ID)
                .orElseThrow(
                        () -> RefusedException.invalid("\"" + login + "\" is not an operator who has a password."));
    }

    private static String words(AccessPolicyView policy) {
        return (policy.teamsDecide() ? "members of the owning team only" : "every analyst")
                + (policy.passwords() ? "" : ", no passwords but of " + policy.emergencyOperator());
    }
}
