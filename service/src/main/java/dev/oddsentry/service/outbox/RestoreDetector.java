package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.INSTALLATION;
import static dev.oddsentry.service.db.generated.Tables.MAIL_HOLD;
import static org.jooq.impl.DSL.field;

import dev.oddsentry.service.config.Installation;
import dev.oddsentry.service.config.Settings;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Objects;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Sees at the start whether these records were restored or copied since an installation last started on them. Such records do not know what was mailed
 * meanwhile, or whose mail another installation still sends; so all mail starts held, and a person looks at what it would be.
 */
@Component
class RestoreDetector {
    private static final Logger LOG = LoggerFactory.getLogger(RestoreDetector.class);

    /** Of the database server's data, of its history (a recovery starts another), and of the database in it. */
    private static final Field<String> PLACE = field(
            "(select system_identifier from pg_control_system())::text || ' ' || (select timeline_id from pg_control_checkpoint())::text || ' ' ||"
                    + " (select oid from pg_database where datname = current_database())::text",
            String.class);

    private static final Field<Long> THIS_TRANSACTION =
            field("(pg_current_xact_id()::text::numeric % 4294967296)::bigint", Long.class);
    private static final Field<Long> WRITTEN_BY = field("installation.xmin::text::bigint", Long.class);

    private final DSLContext db;
    private final Clock clock;
    private final @Nullable String name;

    RestoreDetector(
            DSLContext db, Clock clock, Settings settings, Installation installed, TransactionTemplate transactions) {
        this.db = db;
        this.clock = clock;
        this.name = settings.installation();
        installed.digester();
        transactions.executeWithoutResult(_ -> look());
    }

    /** Of two nodes that start at once the first one sees it, and holds the mail of both. */
    private void look() {
        var here = db.select(INSTALLATION.PLACE, INSTALLATION.NAME, INSTALLATION.WRITTEN_BY, WRITTEN_BY, PLACE)
                .from(INSTALLATION)
                .forUpdate()
                .fetchSingle();
        boolean known = here.value1() != null;
        var signs = new ArrayList<String>();
        if (known && !here.value1().equals(here.value5()))
            signs.add("they are in another database, or their server was recovered");
        if (known && !here.value4().equals(here.value3())) signs.add("they were loaded from a dump");
        if (known && !Objects.equals(here.value2(), name))
            signs.add("they were last used by the installation " + named(here.value2()) + ", and this one is "
                    + named(name));
        if (!signs.isEmpty()) hold(String.join(", and ", signs));
        if (!known || !signs.isEmpty())
            db.update(INSTALLATION)
                    .set(INSTALLATION.PLACE, PLACE)
                    .set(INSTALLATION.NAME, name)
                    .set(INSTALLATION.WRITTEN_BY, THIS_TRANSACTION)
                    .execute();
    }

    private static String named(@Nullable String name) {
        return name == null ? "without a name" : name;
    }

    private void hold(String signs) {
        String why = "These records were restored or copied: " + signs
                + ". What waits may have been sent already, or be another installation's to send";
        db.insertInto(MAIL_HOLD)
                .set(MAIL_HOLD.REASON, why)
                .set(MAIL_HOLD.HELD_AT, clock.instant())
                .execute();
        LOG.warn("All outgoing mail is held. {}; odd hold-mail lists it, and ends it.", why);
    }
}
