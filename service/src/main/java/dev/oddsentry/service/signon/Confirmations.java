package dev.oddsentry.service.signon;

import static dev.oddsentry.service.db.generated.Tables.ACCESS_TOKEN;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.PROVIDER_IDENTITY;
import static org.jooq.impl.DSL.max;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import dev.oddsentry.service.access.LogInEnds;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.db.generated.tables.records.ProviderIdentityRecord;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.secrets.SecretBox;
import java.time.Clock;
import java.time.Duration;
import java.util.HashSet;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.security.oauth2.core.OAuth2AuthorizationException;
import org.springframework.security.oauth2.core.OAuth2ErrorCodes;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Asks providers whether those they vouched for are still there. Who is not loses sessions and tokens. A provider that gives no refresh token cannot be
 * asked: tokens of people without a password then end after thirty days without a log-in there.
 */
@Component
public class Confirmations {
    private static final Logger LOG = LoggerFactory.getLogger(Confirmations.class);
    private static final Duration UNASKED_FOR = Duration.ofDays(30);

    private final DSLContext db;
    private final IdentityProviders providers;
    private final Registrations registrations;
    private final ProviderTokens tokens;
    private final People people;
    private final LogInEnds logInEnds;
    private final SecretBox secrets;
    private final Audit audit;
    private final TransactionTemplate transactions;
    private final Clock clock;
    private final Duration every;

    Confirmations(
            DSLContext db,
            IdentityProviders providers,
            Registrations registrations,
            ProviderTokens tokens,
            People people,
            LogInEnds logInEnds,
            SecretBox secrets,
            Audit audit,
            TransactionTemplate transactions,
            Clock clock,
            Settings settings) {
        this.db = db;
        this.providers = providers;
        this.registrations = registrations;
        this.tokens = tokens;
        this.people = people;
        this.logInEnds = logInEnds;
        this.secrets = secrets;
        this.audit = audit;
        this.transactions = transactions;
        this.clock = clock;
        this.every = settings.signOn().confirmEvery();
    }

    public RecurringTask<Void> task() {
        return Tasks.recurring("log-in confirmations", FixedDelay.of(every)).execute((_, _) -> confirmDue());
    }

    void confirmDue() {
        var due = db.selectFrom(PROVIDER_IDENTITY)
                .where(
                        PROVIDER_IDENTITY.REFRESH_TOKEN.isNotNull(),
                        PROVIDER_IDENTITY.CONFIRMED_AT.le(clock.instant().minus(every)))
                .orderBy(PROVIDER_IDENTITY.CONFIRMED_AT)
                .fetch();
        var down = new HashSet<UUID>();
        for (var identity : due) {
            if (down.contains(identity.getProviderId())) continue;
            try {
                confirm(identity);
            } catch (RuntimeException failed) {
                // It withdraws nothing, and is asked again later; not for each of its users, each of whom would wait
                // for it.
                down.add(identity.getProviderId());
                LOG.warn("An identity provider could not be asked about its users: {}", failed.getMessage());
            }
        }
        endOldTokens();
    }

    private void confirm(ProviderIdentityRecord identity) {
        var provider = providers.find(identity.getProviderId()).orElseThrow();
        try {
            var answer = tokens.refresh(registrations.of(provider), secrets.open(identity.getRefreshToken()));
            var next = answer.getRefreshToken();
            byte[] before = identity.getRefreshToken();
            db.update(PROVIDER_IDENTITY)
                    .set(PROVIDER_IDENTITY.CONFIRMED_AT, clock.instant())
                    .set(PROVIDER_IDENTITY.REFRESH_TOKEN, next == null ? before : secrets.seal(next.getTokenValue()))
                    .where(isStill(identity))
                    .execute();
        } catch (OAuth2AuthorizationException refused) {
            if (!refused.getError().getErrorCode().equals(OAuth2ErrorCodes.INVALID_GRANT)) throw refused;
            withdraw(identity, provider);
        }
    }

    private void withdraw(ProviderIdentityRecord identity, IdentityProvider provider) {
        transactions.executeWithoutResult(_ -> {
            int withdrawn = db.update(PROVIDER_IDENTITY)
                    .setNull(PROVIDER_IDENTITY.REFRESH_TOKEN)
                    .where(isStill(identity))
                    .execute();
            if (withdrawn == 0) return;
            var person = people.byId(identity.getPersonId());
            logInEnds.end(person, null);
            audit.record(
                    db,
                    null,
                    AuditAct.END_SESSION,
                    person.login(),
                    provider.details().title() + " no longer vouches for this user");
        });
    }

    /** Who has logged in again since it was read has another token. */
    private static Condition isStill(ProviderIdentityRecord identity) {
        return PROVIDER_IDENTITY
                .PROVIDER_ID
                .eq(identity.getProviderId())
                .and(PROVIDER_IDENTITY.SUBJECT.eq(identity.getSubject()))
                .and(PROVIDER_IDENTITY.REFRESH_TOKEN.eq(identity.getRefreshToken()));
    }

    private void endOldTokens() {
        var now = clock.instant();
        var unasked = db.select(PROVIDER_IDENTITY.PERSON_ID)
                .from(PROVIDER_IDENTITY)
                .join(PERSON)
                .on(PERSON.ID.eq(PROVIDER_IDENTITY.PERSON_ID))
                .where(PERSON.PASSWORD_HASH.isNull())
                .groupBy(PROVIDER_IDENTITY.PERSON_ID)
                .having(max(PROVIDER_IDENTITY.CONFIRMED_AT).le(now.minus(UNASKED_FOR)));
        db.deleteFrom(ACCESS_TOKEN).where(ACCESS_TOKEN.PERSON_ID.in(unasked)).execute();
    }
}
