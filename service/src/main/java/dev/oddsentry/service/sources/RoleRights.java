package dev.oddsentry.service.sources;

import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;

/**
 * What a source's role may do besides reading. Queries run in read-only transactions all the same; a role that may only read is the second wall.
 *
 * @param powers of the role as a whole, such as superuser
 * @param writable tables that it may change
 * @param creatable schemas, and the database itself, in which it may create
 */
public record RoleRights(List<String> powers, List<String> writable, List<String> creatable) {
    private static final int NAMED = 3;

    private static final String POWERS = """
            select power from pg_roles, lateral (values
                (rolsuper, 'is a superuser'),
                (rolcreaterole, 'may create roles'),
                (rolcreatedb, 'may create databases'),
                (rolreplication, 'may replicate'),
                (rolbypassrls, 'sees rows that row security hides')) as of(has, power)
            where rolname = current_user and has
            union all
            select 'is a member of ' || r.rolname from pg_roles r
            where r.rolname in ('pg_read_server_files', 'pg_write_server_files', 'pg_execute_server_program', 'pg_write_all_data', 'pg_signal_backend')
              and pg_has_role(current_user, r.oid, 'usage')
              and not (select rolsuper from pg_roles where rolname = current_user)""";

    private static final String WRITABLE = """
            select n.nspname || '.' || c.relname from pg_class c join pg_namespace n on n.oid = c.relnamespace
            where c.relkind in ('r', 'p', 'v', 'f') and n.nspname not in ('pg_catalog', 'information_schema', 'pg_toast')
              and has_schema_privilege(n.oid, 'usage')
              and (has_table_privilege(c.oid, 'insert') or has_table_privilege(c.oid, 'update')
                or has_table_privilege(c.oid, 'delete') or has_table_privilege(c.oid, 'truncate'))
            order by 1""";

    private static final String CREATABLE = """
            select 'schema ' || nspname from pg_namespace
            where nspname not like 'pg\\_%' and nspname <> 'information_schema' and has_schema_privilege(oid, 'create')
            union all
            select 'database ' || current_database() where has_database_privilege(current_database(), 'create')
            order by 1""";

    public static RoleRights read(SourceConnection connection) throws SQLException {
        return new RoleRights(texts(connection, POWERS), texts(connection, WRITABLE), texts(connection, CREATABLE));
    }

    private static List<String> texts(SourceConnection connection, String sql) throws SQLException {
        try (var statement = connection.prepare(sql);
                var rows = statement.executeQuery()) {
            var texts = new ArrayList<String>();
            while (rows.next()) texts.add(rows.getString(1));
            return texts;
        }
    }

    /** Sentences for the operator; empty if the role may only read. */
    public List<String> warnings() {
        var warnings = new ArrayList<String>();
        powers.forEach(power -> warnings.add("The role " + power + ". Use a role that may only read."));
        if (!writable.isEmpty())
            warnings.add("The role may write to " + named(writable) + ". Use a role that may only read.");
        if (!creatable.isEmpty())
            warnings.add("The role may create objects in " + named(creatable) + ". Use a role that may only read.");
        return warnings;
    }

    private static String named(List<String> names) {
        String first = String.join(", ", names.subList(0, Math.min(NAMED, names.size())));
        int more = names.size() - NAMED;
        return more <= 0 ? first : first + " and " + more + " more";
    }
}
