package dev.oddsentry.service.recipients;

import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.RECIPIENT_LANGUAGE;
import static org.jooq.Records.mapping;

import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** In which language readers want their mail; of others it is the rule's. */
@Component
public class RecipientLanguages {
    private final DSLContext db;
    private final Clock clock;
    private final Audit audit;

    RecipientLanguages(DSLContext db, Clock clock, Audit audit) {
        this.db = db;
        this.clock = clock;
        this.audit = audit;
    }

    /** @param by who set it; null for the recipient, by the link in a message */
    public record RecipientLanguage(
            String address, Language language, @Nullable String by, Instant at) {}

    public List<RecipientLanguage> all() {
        return db.select(
                        RECIPIENT_LANGUAGE.ADDRESS, RECIPIENT_LANGUAGE.LANGUAGE, PERSON.NAME, RECIPIENT_LANGUAGE.SET_AT)
                .from(RECIPIENT_LANGUAGE)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(RECIPIENT_LANGUAGE.SET_BY))
                .orderBy(RECIPIENT_LANGUAGE.ADDRESS)
                .fetch(mapping(RecipientLanguage::new));
    }

    /** By address, in lower case. */
    public Map<String, Language> byAddress() {
        return db.fetch(RECIPIENT_LANGUAGE).intoMap(RECIPIENT_LANGUAGE.ADDRESS, RECIPIENT_LANGUAGE.LANGUAGE);
    }

    /** @param language null for the rule's */
    @Transactional
    public void set(Person by, String written, @Nullable Language language) {
        String address = written.strip().toLowerCase(Locale.ROOT);
        if (!MailAddress.isOne(address)) throw RefusedException.invalid("\"" + written + "\" is not a mail address.");
        if (by.role() != Role.OPERATOR && !by.email().equalsIgnoreCase(address))
            throw RefusedException.forbidden("Only an operator sets the language of others.");
        put(by, address, language);
        audit.record(db, by.id(), AuditAct.SET_LANGUAGE, address, language == null ? "the rule's" : language.code());
    }

    /** The recipient sets it by the link in a message. */
    @Transactional
    public void setByReader(String address, @Nullable Language language) {
        put(null, address.toLowerCase(Locale.ROOT), language);
    }

    private void put(@Nullable Person by, String address, @Nullable Language language) {
        if (language == null)
            db.deleteFrom(RECIPIENT_LANGUAGE)
                    .where(RECIPIENT_LANGUAGE.ADDRESS.eq(address))
                    .execute();
        else
            db.insertInto(RECIPIENT_LANGUAGE)
                    .set(RECIPIENT_LANGUAGE.ADDRESS, address)
                    .set(RECIPIENT_LANGUAGE.LANGUAGE, language)
                    .set(RECIPIENT_LANGUAGE.SET_BY, by == null ? null : by.id())
                    .set(RECIPIENT_LANGUAGE.SET_AT, clock.instant())
                    .onConflict(RECIPIENT_LANGUAGE.ADDRESS)
                    .doUpdate()
                    .setAllToExcluded()
                    .execute();
    }
}
