package dev.oddsentry.service.sources;

import dev.oddsentry.service.web.RefusedException;
import java.sql.DatabaseMetaData;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;

/** What a source holds, as its driver tells: for people who write queries. */
@Component
public class SourceTables {
    /** Columns; a source may hold more than anyone could look through. */
    private static final int MOST = 20_000;

    private static final Set<String> SYSTEM = Set.of("information_schema", "pg_catalog", "pg_toast");

    private final SourcePools pools;

    SourceTables(SourcePools pools) {
        this.pools = pools;
    }

    record SourceColumn(String name, String type) {}

    /**
     * A foreign key: rows of the table lead to at most one row of another.
     *
     * @param columns of the table that has the key
     * @param otherColumns those that they equal, in the same order
     */
    record SourceReference(List<String> columns, String schema, String table, List<String> otherColumns) {}

    record SourceTable(String schema, String name, List<SourceColumn> columns, List<SourceReference> references) {}

    /** @param more whether there are others that are not told */
    public record SourceCatalogue(List<SourceTable> tables, boolean more) {}

    /** @throws RefusedException if the source does not answer */
    public SourceCatalogue of(Source source) {
        try (var connection = pools.open(source, Lane.BY_HAND)) {
            return read(connection.metaData(), connection.catalog());
        } catch (SQLException e) {
            throw RefusedException.invalid("The source " + source.name() + " does not list its tables: "
                    + String.valueOf(e.getMessage()).lines().findFirst().orElse("") + ".");
        }
    }

    private record Key(String schema, String name) {}

    private static SourceCatalogue read(DatabaseMetaData meta, String catalog) throws SQLException {
        var tables = new LinkedHashMap<Key, List<SourceColumn>>();
        int count = 0;
        try (var columns = meta.getColumns(catalog, null, "%", "%")) {
            while (columns.next()) {
                String schema = String.valueOf(columns.getString("TABLE_SCHEM"));
                if (SYSTEM.contains(schema)) continue;
                if (++count > MOST) break;
                tables.computeIfAbsent(new Key(schema, columns.getString("TABLE_NAME")), _ -> new ArrayList<>())
                        .add(new SourceColumn(columns.getString("COLUMN_NAME"), columns.getString("TYPE_NAME")));
            }
        }
        var references = references(meta, catalog);
        var found = tables.entrySet().stream()
                .map(entry -> new SourceTable(
                        entry.getKey().schema(),
                        entry.getKey().name(),
                        List.copyOf(entry.getValue()),
                        references.getOrDefault(entry.getKey(), List.of())))
                .toList();
        return new SourceCatalogue(found, count > MOST);
    }

    /** The driver lists the columns of a key one by one, in their order. */
    private static Map<Key, List<SourceReference>> references(DatabaseMetaData meta, String catalog)
            throws SQLException {
        var references = new HashMap<Key, List<SourceReference>>();
        try (var keys = meta.getCrossReference(null, null, null, catalog, null, null)) {
            SourceReference last = null;
            while (keys.next()) {
                if (last == null || keys.getShort("KEY_SEQ") == 1) {
                    last = new SourceReference(
                            new ArrayList<>(),
                            String.valueOf(keys.getString("PKTABLE_SCHEM")),
                            keys.getString("PKTABLE_NAME"),
                            new ArrayList<>());
                    references
                            .computeIfAbsent(
                                    new Key(
                                            String.valueOf(keys.getString("FKTABLE_SCHEM")),
                                            keys.getString("FKTABLE_NAME")),
                                    _ -> new ArrayList<>())
                            .add(last);
                }
                last.columns().add(keys.getString("FKCOLUMN_NAME"));
                last.otherColumns().add(keys.getString("PKCOLUMN_NAME"));
            }
        }
        return references;
    }
}
