package dev.oddsentry.service.sources;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.Objects;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Keeps the database of the service's own records from being read as a source, under whatever address. */
@Component
class OwnRecords {
    /** The same for each connection to one database of one running server, and for no others; every role may ask. */
    private static final String IDENTITY =
            "select extract(epoch from pg_postmaster_start_time()) || ' ' || (select oid from pg_database where datname = current_database())";

    private final DSLContext db;

    OwnRecords(DSLContext db) {
        this.db = db;
    }

    /** @throws SQLException if the connection leads to the service's own records */
    void refuse(Connection connection) throws SQLException {
        String own = db.fetchSingle(IDENTITY).get(0, String.class);
        try (var statement = connection.createStatement();
                var rows = statement.executeQuery(IDENTITY)) {
            rows.next();
            if (Objects.equals(rows.getString(1), own)) throw new OwnRecordsException();
        }
    }

    static final class OwnRecordsException extends SQLException {
        OwnRecordsException() {
            super("this is the database of Odd Sentry's own records, which cannot be a source");
        }
    }
}
