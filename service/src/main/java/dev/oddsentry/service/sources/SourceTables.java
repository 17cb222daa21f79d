package dev.oddsentry.service.sources;

import dev.oddsentry.service.web.RefusedException;
import java.sql.DatabaseMetaData;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
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

    record SourceTable(String schema, String name, List<SourceColumn> columns) {}

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
        var found = tables.entrySet().stream()
                .map(entry ->
                        new SourceTable(entry.getKey().schema(), entry.getKey().name(), List.copyOf(entry.getValue())))
                .toList();
        return new SourceCatalogue(found, count > MOST);
    }
}
