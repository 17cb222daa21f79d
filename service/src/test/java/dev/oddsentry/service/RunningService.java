package dev.oddsentry.service;

import com.icegreen.greenmail.store.FolderException;
import com.icegreen.greenmail.store.StoredMessage;
import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import dev.oddsentry.service.clock.DatabaseClock;
import dev.oddsentry.testkit.MovedClock;
import dev.oddsentry.testkit.ThrowAwayPostgres;
import jakarta.mail.internet.MimeMessage;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.ConcurrentModificationException;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import java.util.function.BooleanSupplier;
import org.awaitility.Awaitility;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.support.GenericApplicationContext;

/**
 * The real service in this process, on loopback, with a throw-away PostgreSQL that holds its records and a ferry database, and a
 * mail server that takes everything. Started once and kept for all tests; each test uses names of its own.
 */
public final class RunningService implements AutoCloseable {
    public static final String OPERATOR_PASSWORD = "operator-of-the-tests";
    private static final Duration LOOK_AGAIN = Duration.ofMillis(30);
    private static RunningService instance;

    private final ThrowAwayPostgres postgres;
    private final GreenMail mail;
    private final String recordsName;
    private final @Nullable MovedClock clock;
    private final List<ConfigurableApplicationContext> nodes = new ArrayList<>();
    private HttpApi operator;

    public static synchronized RunningService get() {
        if (instance == null) instance = new RunningService();
        return instance;
    }

    /** A service whose time a test can move, on records of its own; it shares the servers with the other. The caller closes it. */
    public static RunningService withItsOwnTime(String... settings) {
        var shared = get();
        String records = "records_" + UUID.randomUUID().toString().substring(0, 8);
        shared.execute("postgres", "create database " + records);
        return new RunningService(shared.postgres, shared.mail, records, new MovedClock(), settings);
    }

    private RunningService() {
        this(
                ThrowAwayPostgres.start(),
                new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP).dynamicPort()),
                "records",
                null);
    }

    private RunningService(
            ThrowAwayPostgres postgres,
            GreenMail mail,
            String recordsName,
            @Nullable MovedClock clock,
            String... settings) {
        this.postgres = postgres;
        this.mail = mail;
        this.recordsName = recordsName;
        this.clock = clock;
        if (clock == null) {
            mail.start();
            execute("postgres", "create database records");
            execute("postgres", "create database ferry");
            execute("postgres", "create role ferry_reader login password 'reader'");
            execute("ferry", "alter default privileges grant select on tables to ferry_reader");
        }
        nodes.add(startNode("first", records(), settings));
        operator = HttpApi.loggedIn(baseUrl(), "operator", OPERATOR_PASSWORD);
        operator.put(
                "/api/sources/ferry",
                Map.of(
                        "jdbcUrl",
                        postgres.jdbcUrl("ferry"),
                        "username",
                        "ferry_reader",
                        "password",
                        "reader",
                        "maxRows",
                        1000,
                        "timeLimitSeconds",
                        4));
    }

    public String records() {
        return postgres.jdbcUrl(recordsName);
    }

    /** Time passes, for a service with its own; the operator logs in again, since a session does not last as long. */
    public void pass(Duration time) {
        Objects.requireNonNull(clock, "its time is that of all tests").advance(time);
        operator = HttpApi.loggedIn(baseUrl(), "operator", OPERATOR_PASSWORD);
    }

    /** The sender has looked at the message and put it off, so that its absence from a mailbox says something. */
    public void senderHasPutOff(String database, String message) {
        await(
                "the sender's look at " + message,
                () -> count(
                                database,
                                "select count(*) from mail_tasks where task_instance = '" + message
                                        + "' and execution_time > now() + interval '20 seconds'")
                        == 1);
    }

    /** A number from the records, such as a count. */
    public long countRecords(String sql) {
        return count(recordsName, sql);
    }

    /** Changes the records as nobody else could, to have something be as it is after some time. */
    public void changeRecords(String sql) {
        execute(recordsName, sql);
    }

    /** Ends this service alone, and not the servers that it shares. */
    @Override
    public void close() {
        nodes.forEach(ConfigurableApplicationContext::close);
    }

    /** Another node, on the records given; the caller closes it. */
    public ConfigurableApplicationContext startNode(String name, String recordsUrl, String... settings) {
        var all = new ArrayList<>(List.of(
                "--server.port=0",
                "--spring.datasource.url=" + recordsUrl,
                "--spring.datasource.username=" + ThrowAwayPostgres.USER,
                "--spring.datasource.hikari.maximum-pool-size=12",
                "--oddsentry.node=" + name,
                "--oddsentry.key=AAECAwQFBgcICQoLDA0ODxAREhMUFRYXGBkaGxwdHh8=",
                "--oddsentry.mail.host=127.0.0.1",
                "--oddsentry.mail.port=" + mail.getSmtp().getPort(),
                "--oddsentry.mail.from=odd-sentry@skerryline.example",
                "--oddsentry.mail.time-limit=3s",
                "--oddsentry.mail.first-wait=500ms",
                "--oddsentry.metrics.token=metrics-token-of-the-tests",
                "--oddsentry.work.polling=100ms",
                "--oddsentry.incidents.look-every=200ms",
                "--oddsentry.incidents.gather=400ms",
                "--oddsentry.first-operator.password=" + OPERATOR_PASSWORD,
                "--spring.main.banner-mode=off",
                "--logging.level.root=error"));
        for (String setting : settings) {
            String assigned = setting.substring(0, setting.indexOf('=') + 1);
            all.removeIf(each -> each.startsWith(assigned));
            all.add(setting);
        }
        var application = new SpringApplication(OddSentryService.class);
        if (clock != null)
            application.addInitializers(context -> ((GenericApplicationContext) context)
                    .registerBean(
                            "movedClock",
                            Clock.class,
                            () -> clock.over(context.getBean(DatabaseClock.class)),
                            definition -> definition.setPrimary(true)));
        return application.run(all.toArray(String[]::new));
    }

    /** The source of the tests, for a node with records of its own. */
    public void useFerry(HttpApi api) {
        api.put(
                "/api/sources/ferry",
                Map.of("jdbcUrl", postgres.jdbcUrl("ferry"), "username", "ferry_reader", "password", "reader"));
    }

    public String baseUrl() {
        return baseUrl(nodes.getFirst());
    }

    public static String baseUrl(ConfigurableApplicationContext node) {
        return "http://127.0.0.1:" + node.getEnvironment().getProperty("local.server.port");
    }

    public <T> T bean(Class<T> type) {
        return nodes.getFirst().getBean(type);
    }

    /** The API as the operator sees it. */
    public HttpApi api() {
        return operator;
    }

    public ThrowAwayPostgres postgres() {
        return postgres;
    }

    public void ferry(String sql) {
        execute("ferry", sql);
    }

    public void execute(String database, String sql) {
        try (var connection = connect(database);
                var statement = connection.createStatement()) {
            statement.execute(sql);
        } catch (SQLException e) {
            throw new IllegalStateException(sql, e);
        }
    }

    /** What a query answers that has one number. */
    public long count(String database, String sql) {
        try (var connection = connect(database);
                var statement = connection.createStatement();
                var rows = statement.executeQuery(sql)) {
            rows.next();
            return rows.getLong(1);
        } catch (SQLException e) {
            throw new IllegalStateException(sql, e);
        }
    }

    public Connection connect(String database) throws SQLException {
        return DriverManager.getConnection(postgres.jdbcUrl(database), ThrowAwayPostgres.USER, "");
    }

    /** What lies in the mailbox of one address, in the order it came; a message to two lies in both. */
    public List<MimeMessage> mailTo(String address) {
        var user = mail.getUserManager().getUserByEmail(address);
        if (user == null) return List.of();
        try {
            return mail.getManagers().getImapHostManager().getInbox(user).getMessages().stream()
                    .map(StoredMessage::getMimeMessage)
                    .toList();
        } catch (FolderException e) {
            throw new IllegalStateException(e);
        } catch (ConcurrentModificationException arrivesJustNow) {
            // The list is the mailbox's own.
            return mailTo(address);
        }
    }

    public static void await(String what, BooleanSupplier until) {
        await(what, Duration.ofSeconds(60), until);
    }

    public static void await(String what, Duration atMost, BooleanSupplier until) {
        Awaitility.await(what).atMost(atMost).pollInterval(LOOK_AGAIN).until(until::getAsBoolean);
    }
}
