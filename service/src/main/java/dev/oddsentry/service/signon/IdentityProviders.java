package dev.oddsentry.service.signon;

import static dev.oddsentry.service.db.generated.Tables.ACCESS_POLICY;
import static dev.oddsentry.service.db.generated.Tables.IDENTITY_PROVIDER;
import static dev.oddsentry.service.db.generated.Tables.PROVIDER_GROUP;
import static dev.oddsentry.service.db.generated.Tables.PROVIDER_IDENTITY;
import static dev.oddsentry.service.db.generated.Tables.SIGN_ON_ATTEMPT;
import static dev.oddsentry.service.db.generated.Tables.TEAM;
import static org.jooq.Records.mapping;
import static org.jooq.impl.DSL.multiset;
import static org.jooq.impl.DSL.noCondition;
import static org.jooq.impl.DSL.select;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.db.generated.tables.records.IdentityProviderRecord;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.secrets.SecretBox;
import dev.oddsentry.service.signon.ProviderDetails.GroupLine;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** The identity providers that operators have set up. */
@Component
public class IdentityProviders {
    private static final Field<List<GroupLine>> LINES = multiset(
                    select(PROVIDER_GROUP.GROUP_NAME, PROVIDER_GROUP.ROLE, PROVIDER_GROUP.TEAM)
                            .from(PROVIDER_GROUP)
                            .where(PROVIDER_GROUP.PROVIDER_ID.eq(IDENTITY_PROVIDER.ID))
                            .orderBy(PROVIDER_GROUP.POSITION))
            .convertFrom(lines -> lines.map(mapping(GroupLine::new)));

    private final DSLContext db;
    private final SecretBox secrets;
    private final Discovery discovery;
    private final Audit audit;
    private final TransactionTemplate transactions;
    private final Clock clock;

    IdentityProviders(
            DSLContext db,
            SecretBox secrets,
            Discovery discovery,
            Audit audit,
            TransactionTemplate transactions,
            Clock clock) {
        this.db = db;
        this.secrets = secrets;
        this.discovery = discovery;
        this.audit = audit;
        this.transactions = transactions;
        this.clock = clock;
    }

    public List<IdentityProvider> all() {
        return list(noCondition());
    }

    /** @throws RefusedException if there is none of that name */
    public IdentityProvider require(String name) {
        return list(IDENTITY_PROVIDER.NAME.eq(name)).stream()
                .findFirst()
                .orElseThrow(() -> RefusedException.notFound("There is no identity provider \"" + name + "\"."));
    }

    Optional<IdentityProvider> find(UUID id) {
        return list(IDENTITY_PROVIDER.ID.eq(id)).stream().findFirst();
    }

    private List<IdentityProvider> list(Condition which) {
        return db.select(IDENTITY_PROVIDER.fields())
                .select(LINES)
                .from(IDENTITY_PROVIDER)
                .where(which)
                .orderBy(IDENTITY_PROVIDER.TITLE, IDENTITY_PROVIDER.NAME)
                .fetch(row -> provider(row.into(IDENTITY_PROVIDER), row.get(LINES)));
    }

    private static IdentityProvider provider(IdentityProviderRecord kept, List<GroupLine> lines) {
        var details = new ProviderDetails(
                kept.getTitle(),
                kept.getIssuer(),
                kept.getClientId(),
                List.of(kept.getScopes()),
                kept.getLoginClaim(),
                kept.getGroupClaim(),
                kept.getKnownBy(),
                kept.getAddsPeople(),
                kept.getOtherRole(),
                kept.getAddressesVerified(),
                kept.getActive(),
                lines);
        return new IdentityProvider(
                kept.getId(), kept.getName(), details, kept.getClientSecret() != null, kept.getUpdatedAt());
    }

    /** Empty where this service proves itself with nothing. */
    Optional<String> secret(IdentityProvider of) {
        return db.select(IDENTITY_PROVIDER.CLIENT_SECRET)
                .from(IDENTITY_PROVIDER)
                .where(IDENTITY_PROVIDER.ID.eq(of.id()))
                .fetchOptional(IDENTITY_PROVIDER.CLIENT_SECRET)
                .map(secrets::open);
    }

    /**
     * Another issuer is another provider: whom the one before vouched for is forgotten.
     *
     * @param secret null to keep the present one, empty for none
     * @throws RefusedException if a team is not known, if nothing answers at a new issuer, or if the present secret would go to another issuer
     */
    public IdentityProvider save(Person by, String name, ProviderDetails details, @Nullable String secret) {
        var before = list(IDENTITY_PROVIDER.NAME.eq(name)).stream().findFirst();
        boolean elsewhere = before.isEmpty() || !before.get().details().issuer().equals(details.issuer());
        if (elsewhere
                && secret == null
                && before.map(IdentityProvider::hasSecret).orElse(false))
            throw RefusedException.invalid(
                    "Give the client secret again: the present one was given for another issuer.");
        details.groups().stream().map(GroupLine::team).filter(Objects::nonNull).forEach(this::requireTeam);
        if (elsewhere) discovery.read(details.issuer());
        transactions.executeWithoutResult(_ -> put(by, name, details, secret, before));
        return require(name);
    }

    private void put(
            Person by,
            String name,
            ProviderDetails details,
            @Nullable String secret,
            Optional<IdentityProvider> before) {
        boolean elsewhere =
                before.isPresent() && !before.get().details().issuer().equals(details.issuer());
        UUID id = before.map(IdentityProvider::id).orElseGet(UUID::randomUUID);
        if (elsewhere) {
            db.deleteFrom(PROVIDER_IDENTITY)
                    .where(PROVIDER_IDENTITY.PROVIDER_ID.eq(id))
                    .execute();
            // What the one before gives a browser that is there now must not go to this one.
            db.deleteFrom(SIGN_ON_ATTEMPT)
                    .where(SIGN_ON_ATTEMPT.PROVIDER_ID.eq(id))
                    .execute();
        }
        var row = row(id, name, details);
        if (secret != null) row.setClientSecret(secret.isEmpty() ? null : secrets.seal(secret));
        if (before.isPresent()) row.update();
        else if (db.insertInto(IDENTITY_PROVIDER).set(row).onConflictDoNothing().execute() == 0)
            throw RefusedException.conflict(
                    "Somebody has just added an identity provider \"" + name + "\". Load the page again.");
        putLines(id, details.groups());
        if (!details.active()) refuseWithoutWayIn();
        audit.record(db, by.id(), AuditAct.SAVE_IDENTITY_PROVIDER, name, words(before) + " → " + words(details));
    }

    private IdentityProviderRecord row(UUID id, String name, ProviderDetails details) {
        var row = db.newRecord(IDENTITY_PROVIDER);
        row.setId(id);
        row.touched(IDENTITY_PROVIDER.ID, true);
        row.setName(name);
        row.setTitle(details.title());
        row.setIssuer(details.issuer());
        row.setClientId(details.clientId());
        row.setScopes(details.scopes().toArray(String[]::new));
        row.setLoginClaim(details.loginClaim());
        row.setGroupClaim(details.groupClaim());
        row.setKnownBy(details.knownBy());
        row.setAddsPeople(details.addsPeople());
        row.setOtherRole(details.otherRole());
        row.setAddressesVerified(details.addressesVerified());
        row.setActive(details.active());
        row.setUpdatedAt(clock.instant());
        return row;
    }

    private void putLines(UUID provider, List<GroupLine> lines) {
        db.deleteFrom(PROVIDER_GROUP)
                .where(PROVIDER_GROUP.PROVIDER_ID.eq(provider))
                .execute();
        short position = 0;
        for (var line : lines)
            db.insertInto(PROVIDER_GROUP)
                    .set(PROVIDER_GROUP.PROVIDER_ID, provider)
                    .set(PROVIDER_GROUP.POSITION, position++)
                    .set(PROVIDER_GROUP.GROUP_NAME, line.group())
                    .set(PROVIDER_GROUP.ROLE, line.role())
                    .set(PROVIDER_GROUP.TEAM, line.team())
                    .execute();
    }

    private void requireTeam(@Nullable String team) {
        if (!db.fetchExists(TEAM, TEAM.NAME.eq(team)))
            throw RefusedException.invalid("There is no team \"" + team + "\". Save the team first.");
    }

    /** @throws RefusedException if there is none of that name, or if nobody but the emergency operator could log in without it */
    @Transactional
    public void remove(Person by, String name) {
        var provider = require(name);
        db.deleteFrom(IDENTITY_PROVIDER)
                .where(IDENTITY_PROVIDER.ID.eq(provider.id()))
                .execute();
        refuseWithoutWayIn();
        audit.record(db, by.id(), AuditAct.REMOVE_IDENTITY_PROVIDER, name, words(provider.details()));
    }

    private void refuseWithoutWayIn() {
        boolean passwords = Boolean.TRUE.equals(db.select(ACCESS_POLICY.PASSWORDS)
                .from(ACCESS_POLICY)
                .forUpdate()
                .fetchSingle(ACCESS_POLICY.PASSWORDS));
        if (!passwords && !db.fetchExists(IDENTITY_PROVIDER, IDENTITY_PROVIDER.ACTIVE.isTrue()))
            throw RefusedException.conflict("Nobody but the emergency operator could log in. Allow passwords first.");
    }

    private static String words(Optional<IdentityProvider> before) {
        return before.map(each -> words(each.details())).orElse("none");
    }

    private static String words(ProviderDetails details) {
        String groups = details.groups().stream()
                .map(line -> line.group() + " = " + line.role().name().toLowerCase(Locale.ROOT)
                        + (line.team() == null ? "" : " in " + line.team()))
                .collect(Collectors.joining(", "));
        return details.issuer() + ", client " + details.clientId() + (details.active() ? "" : ", off") + ", known by "
                + details.knownBy().name().toLowerCase(Locale.ROOT)
                + (details.addsPeople() ? ", adds users" : "") + ", groups: " + (groups.isEmpty() ? "none" : groups)
                + ", others: "
                + (details.otherRole() == null
                        ? "no access"
                        : details.otherRole().name().toLowerCase(Locale.ROOT));
    }
}
