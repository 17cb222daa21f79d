package dev.oddsentry.testkit;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
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
 * PostgreSQL's own features. Does nothing while the migrations are the same as last time.
 *
 * <p>Arguments: the folder of the migrations, the folder to write to, the package.
 */
public final class GenerateRecords {
    /** Columns kept as text with a check in the database, and the enum each is in Java. */
    private static final Map<String, String> ENUMS = Map.ofEntries(
            Map.entry("rule\\.state", "dev.oddsentry.service.rules.RuleState"),
            Map.entry("(rule_check|check_copy)\\.state", "dev.oddsentry.service.checks.CheckState"),
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
            Map.entry("person\\.role", "dev.oddsentry.service.people.Role"),
            Map.entry("recipient_language\\.language", "dev.oddsentry.core.extract.Language"),
            Map.entry("definition\\.kind", "dev.oddsentry.core.definition.Definition.Kind"),
            Map.entry("long_work\\.state", "dev.oddsentry.service.backtests.WorkState"));

    private GenerateRecords() {}

    public static void main(String[] arguments) throws Exception {
        Path migrations = Path.of(arguments[0]);
        Path target = Path.of(arguments[1]);
        System.setProperty("org.jooq.no-logo", "true");
        System.setProperty("org.jooq.no-tips", "true");
        String fingerprint = fingerprint(migrations);
        Path stamp = target.resolve("generated-from");
        if (Files.exists(stamp) && Files.readString(stamp).equals(fingerprint)) return;
        try (var postgres = ThrowAwayPostgres.start()) {
            Flyway.configure()
                    .dataSource(postgres.jdbcUrl("postgres"), ThrowAwayPostgres.USER, "")
                    .locations("filesystem:" + migrations)
                    .load()
                    .migrate();
            GenerationTool.generate(configuration(postgres, target, arguments[2]));
        }
        Files.writeString(stamp, fingerprint);
    }

    private static Configuration configuration(ThrowAwayPostgres postgres, Path target, String packageName) {
        var forced = ENUMS.entrySet().stream()
                .map(entry -> new ForcedType()
                        .withUserType(entry.getValue())
                        .withEnumConverter(true)
                        .withIncludeExpression("public\\.(" + entry.getKey() + ")"))
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
                                .withForcedTypes(Stream.concat(forced.stream(), List.of(instants).stream())
                                        .toList()))
                        .withGenerate(new Generate()
                                .withImplicitJoinPathsToMany(false)
                                .withImplicitJoinPathsManyToMany(false)
                                .withRecords(true)
                                .withGlobalObjectReferences(true))
                        .withTarget(
                                new Target().withDirectory(target.toString()).withPackageName(packageName)));
    }

    private static String fingerprint(Path migrations) throws IOException, NoSuchAlgorithmException {
        var digest = MessageDigest.getInstance("SHA-256");
        digest.update(new TreeMap<>(ENUMS).toString().getBytes(StandardCharsets.UTF_8));
        try (var files = Files.list(migrations)) {
            for (Path file : files.sorted().toList()) digest.update(Files.readAllBytes(file));
        }
        return HexFormat.of().formatHex(digest.digest());
    }
}
