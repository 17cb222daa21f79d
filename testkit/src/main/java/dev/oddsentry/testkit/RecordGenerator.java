package dev.oddsentry.testkit;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.flywaydb.core.Flyway;
import org.jooq.codegen.GenerationTool;
import org.jooq.meta.jaxb.Configuration;
import org.jooq.meta.jaxb.Database;
import org.jooq.meta.jaxb.ForcedType;
import org.jooq.meta.jaxb.Generate;
import org.jooq.meta.jaxb.Generator;
import org.jooq.meta.jaxb.Jdbc;
import org.jooq.meta.jaxb.Logging;
import org.jooq.meta.jaxb.Target;

/**
 * Generates jOOQ's classes from the Flyway migrations, on a throw-away PostgreSQL, since the reader that needs none cannot take
 * PostgreSQL's own features. {@code mvn -Pwrite-records -pl testkit -am process-classes} writes them after a new migration.
 */
public final class RecordGenerator {
    /** Columns kept as text with a check in the database, and the enum each is in Java. */
    private static final Map<String, String> ENUMS = Map.ofEntries(
            Map.entry("rule\\.state", "dev.oddsentry.service.rules.RuleState"),
            Map.entry("(rule_check|check_copy)\\.state", "dev.oddsentry.service.rules.CheckState"),
            Map.entry("rule_check\\.origin", "dev.oddsentry.service.evaluation.CheckOrigin"),
            Map.entry("rule_check\\.waiting_for", "dev.oddsentry.service.checks.WaitingFor"),
            Map.entry(
                    "(finding|last_report|forgotten)\\.state|report\\.before_state",
                    "dev.oddsentry.core.memory.FindingState"),
            Map.entry("finding_event\\.(kind|at_opening)", "dev.oddsentry.service.memory.FindingEventKind"),
            Map.entry("handling\\.kind", "dev.oddsentry.core.memory.Marks.Kind"),
            Map.entry("(rule|rule_copy)\\.pending_edit", "dev.oddsentry.core.memory.PendingEffect.EditEffect"),
            Map.entry("(rule|rule_copy)\\.pending_report", "dev.oddsentry.core.memory.PendingEffect.ReportChoice"),
            Map.entry(
                    "(finding|last_report|finding_event|handling)\\.severity|report\\.before_severity|rule_check\\.worst_update",
                    "dev.oddsentry.core.finding.Severity"),
            Map.entry(
                    "message_recipient\\.state|recipient_try\\.outcome", "dev.oddsentry.service.outbox.RecipientState"),
            Map.entry("(rule_check|incident_rule)\\.failure", "dev.oddsentry.service.failures.FailureKind"),
            Map.entry("incident\\.kind", "dev.oddsentry.service.failures.IncidentKind"),
            Map.entry("audit_event\\.act", "dev.oddsentry.service.audit.AuditAct"),
            Map.entry("access_token\\.scope", "dev.oddsentry.service.access.TokenScope"),
            Map.entry("identity_provider\\.known_by", "dev.oddsentry.service.signon.KnownBy"),
            Map.entry("device_request\\.answer", "dev.oddsentry.service.access.DeviceAnswer"),
            Map.entry("person\\.role", "dev.oddsentry.service.people.Role"),
            Map.entry("provider_group\\.role", "dev.oddsentry.service.people.Role"),
            Map.entry("identity_provider\\.other_role", "dev.oddsentry.service.people.Role"),
            Map.entry("recipient_language\\.language", "dev.oddsentry.core.extract.Language"),
            Map.entry("reader_choice\\.collect", "dev.oddsentry.service.recipients.CollectionTime.Every"),
            Map.entry("definition\\.kind", "dev.oddsentry.core.definition.Definition.Kind"),
            Map.entry("long_work\\.state", "dev.oddsentry.service.backtests.WorkState"));

    /** Columns that hold the number of something, and the type each is in Java. */
    private static final Map<String, String> IDS = Map.of(
            "rule_check\\.(id|parent_id)|(check_copy|finding_event|message|rule_trigger)\\.check_id|rule_trigger\\.parent_id|handling\\.ended_check",
            "CheckId",
            "message\\.(id|repeat_of)|message_recipient\\.collected_in|[a-z_]+\\.(before_)?message_id|finding\\.opening_message",
            "MessageId",
            "rule\\.id|[a-z_]+\\.rule_id|rule_after\\.parent_id|message\\.(preview_of|escalation_of)",
            "RuleId");

    private static final String AUDIENCES = "audience\\.id|[a-z_]+\\.audience_id|finding\\.opening_audience";

    private RecordGenerator() {}

    private static final String PACKAGE = "dev.oddsentry.service.db.generated";
    private static final Path SOURCES = Path.of("src", "main", "java");

    /** @param arguments none; it is run in the root folder of the repository */
    public static void main(String[] arguments) throws Exception {
        Path service = Path.of("service").toAbsolutePath();
        Path fresh = Files.createTempDirectory("records");
        var files = generate(service, fresh);
        Path kept = kept(service);
        for (String name : texts(kept).keySet()) if (!files.containsKey(name)) Files.delete(kept.resolve(name));
        for (var file : files.entrySet()) {
            Path place = kept.resolve(file.getKey());
            Files.createDirectories(place.getParent());
            Files.writeString(place, file.getValue());
        }
    }

    /** The folder with the classes as they are kept. */
    public static Path kept(Path service) {
        return service.resolve(SOURCES).resolve(PACKAGE.replace('.', '/'));
    }

    /**
     * @param service the folder of the service, which has the migrations
     * @param target an empty folder to write to
     * @return the files by their paths below the package
     * @throws IllegalStateException if an enum is named for columns that no table has
     */
    public static SortedMap<String, String> generate(Path service, Path target) throws Exception {
        Path migrations = service.resolve(Path.of("src", "main", "resources", "db", "migration"));
        System.setProperty("org.jooq.no-logo", "true");
        System.setProperty("org.jooq.no-tips", "true");
        try (var postgres = ThrowAwayPostgres.start()) {
            Flyway.configure()
                    .dataSource(postgres.jdbcUrl("postgres"), ThrowAwayPostgres.USER, "")
                    .locations("filesystem:" + migrations)
                    .load()
                    .migrate();
            GenerationTool.generate(configuration(postgres, target));
        }
        var files = texts(target.resolve(PACKAGE.replace('.', '/')));
        String written = String.join("\n", files.values());
        for (var entry : ENUMS.entrySet())
            if (!written.contains("import " + entry.getValue() + ";"))
                throw new IllegalStateException(
                        "no column is " + entry.getKey() + ", which is to be of " + entry.getValue());
        return files;
    }

    private static ForcedType id(String columns, String sqlType, String javaType, String name) {
        String type = "dev.oddsentry.service.ids." + name;
        return new ForcedType()
                .withUserType(type)
                .withConverter("org.jooq.Converter.ofNullable(" + javaType + ".class, " + type + ".class, " + type
                        + "::new, " + type + "::value)")
                .withIncludeTypes(sqlType)
                .withIncludeExpression("public\\.(" + columns + ")");
    }

    /** The files below a folder, by their paths in it. */
    public static SortedMap<String, String> texts(Path folder) {
        var texts = new TreeMap<String, String>();
        try (var files = Files.walk(folder)) {
            for (Path file : files.filter(Files::isRegularFile).toList())
                texts.put(folder.relativize(file).toString(), Files.readString(file));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return texts;
    }

    private static Configuration configuration(ThrowAwayPostgres postgres, Path target) {
        var forced = ENUMS.entrySet().stream()
                .map(entry -> new ForcedType()
                        .withUserType(entry.getValue())
                        .withEnumConverter(true)
                        .withIncludeExpression("public\\.(" + entry.getKey() + ")"))
                .toList();
        var ids = Stream.concat(
                        IDS.entrySet().stream()
                                .map(each -> id(each.getKey(), "uuid", "java.util.UUID", each.getValue())),
                        Stream.of(id(AUDIENCES, "bigint|int8", "Long", "AudienceId")))
                .toList();
        var instants =
                new ForcedType().withName("INSTANT").withIncludeTypes("(?i:timestamp with time zone|timestamptz)");
        return new Configuration()
                .withLogging(Logging.WARN)
                .withJdbc(new Jdbc()
                        .withDriver("org.postgresql.Driver")
                        .withUrl(postgres.jdbcUrl("postgres"))
                        .withUser(ThrowAwayPostgres.USER))
                .withGenerator(new Generator()
                        .withDatabase(new Database()
                                .withInputSchema("public")
                                .withOutputSchemaToDefault(true)
                                .withExcludes("flyway_schema_history|spring_session.*")
                                .withForcedTypes(Stream.of(forced, ids, List.of(instants))
                                        .flatMap(List::stream)
                                        .toList()))
                        .withGenerate(new Generate()
                                .withImplicitJoinPathsToOne(false)
                                .withImplicitJoinPathsToMany(false)
                                .withImplicitJoinPathsManyToMany(false)
                                .withIndexes(false)
                                .withWhereMethodOverrides(false)
                                .withRenameMethodOverrides(false)
                                .withRecords(true)
                                .withGlobalObjectReferences(true))
                        .withTarget(
                                new Target().withDirectory(target.toString()).withPackageName(PACKAGE)));
    }
}
