package dev.oddsentry.service.db;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import org.flywaydb.core.api.MigrationVersion;
import org.flywaydb.core.api.migration.Context;
import org.flywaydb.core.api.migration.JavaMigration;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Gives the keys of all stored documents their present names, in the order in which they were written. In Java, because the order of fields
 * matters in a document and PostgreSQL keeps it in no type that it can change.
 */
@Component
class DocumentKeysMigration implements JavaMigration {
    private final JsonMapper json = new JsonMapper();

    @Override
    public MigrationVersion getVersion() {
        return MigrationVersion.fromVersion("27");
    }

    @Override
    public String getDescription() {
        return "document keys";
    }

    @Override
    public @Nullable Integer getChecksum() {
        return null;
    }

    @Override
    public boolean canExecuteInTransaction() {
        return true;
    }

    private record Stored(String at, String document) {}

    @Override
    public void migrate(Context context) throws SQLException {
        rename(context.getConnection(), "definition_revision");
        rename(context.getConnection(), "rule_draft");
    }

    /** Rows are found again by their place in the table, which stays while nothing else writes to it. */
    private void rename(Connection connection, String table) throws SQLException {
        var all = new ArrayList<Stored>();
        try (var read = connection.createStatement();
                var rows = read.executeQuery("select ctid::text, document::text from " + table)) {
            while (rows.next()) all.add(new Stored(rows.getString(1), rows.getString(2)));
        }
        try (var write =
                connection.prepareStatement("update " + table + " set document = ?::json where ctid = ?::tid")) {
            for (Stored each : all) {
                if (!(json.readTree(each.document()) instanceof ObjectNode document)) continue;
                String renamed = json.writeValueAsString(DocumentKeys.renamed(document));
                if (renamed.equals(each.document())) continue;
                write.setString(1, renamed);
                write.setString(2, each.at());
                write.addBatch();
            }
            write.executeBatch();
        }
    }
}
