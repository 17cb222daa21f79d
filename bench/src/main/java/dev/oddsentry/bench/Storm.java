package dev.oddsentry.bench;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.ServiceProcess;
import dev.oddsentry.service.UnwillingMailServer;
import dev.oddsentry.service.UnwillingMailServer.Mood;
import java.io.IOException;
import java.sql.SQLException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;

/**
 * Two nodes and some rules over data that changes, while nodes are killed and paused, their clocks jump, the databases stop, disks fill,
 * connections run out, people edit the rules and the mail server has a mood. Afterwards the source's own table of what happened is held
 * against what the mail server took.
 */
public final class Storm {
    private static final int RULES = Integer.getInteger("odd.rules", 30);
    private static final int MINUTES = 18;
    private static final Duration LEFT_ALONE = Duration.ofMinutes(10);

    private final Random random;
    private final Lab lab;
    private final UnwillingMailServer mail;
    private final StormFaults faults;
    private volatile String lastRefusal = "none";
    private long changes;
    private final AtomicLong edits = new AtomicLong();

    private Storm(Lab lab, UnwillingMailServer mail, long seed) {
        this.lab = lab;
        this.mail = mail;
        this.random = new Random(seed);
        this.faults = new StormFaults(random);
    }

    public static void main(String[] arguments) throws IOException, InterruptedException, SQLException {
        int minutes = arguments.length == 0 ? MINUTES : Integer.parseInt(arguments[0]);
        long seed = Long.getLong("odd.seed", System.nanoTime());
        System.out.println("seed " + seed + " (give it again as JAVA_OPTIONS=-Dodd.seed=" + seed + ")");
        var disk = SmallDisk.mount(1_000);
        boolean clean;
        try (var lab = disk.isPresent() ? new Lab(disk.get().folder()) : new Lab();
                var mail = new UnwillingMailServer(Mood.TAKE)) {
            clean = new Storm(lab, mail, seed).run(minutes, disk);
        }
        disk.ifPresent(SmallDisk::close);
        System.exit(clean ? 0 : 1);
    }

    private boolean run(int minutes, Optional<SmallDisk> recordsDisk)
            throws IOException, InterruptedException, SQLException {
        lab.execute(
                "ferry",
                "create table sailing (id bigint generated always as identity primary key, rule int not null, delay_min int not null);"
                        + " create index on sailing (rule); grant select on sailing to ferry_reader");
        var nodes = List.of(node("one"), node("two"));
        faults.ofMail(mail);
        faults.ofServers(lab);
        recordsDisk.ifPresentOrElse(
                disk -> faults.ofRecordsDisk(lab, disk), () -> say("no disk is filled: only root may mount one%n"));
        var api = nodes.getFirst().operator();
        lab.saveSource(api, 8, 20);
        for (int rule = 0; rule < RULES; rule++) {
            api.push("kind: query\nname: sailings-" + rule
                    + "\nsource: ferry\nsql: select id, delay_min from sailing where rule = " + rule + "\n");
            api.push(document(rule, 45, "Late sailings"));
            api.post("/api/rules/late-" + rule + "/activate", "");
        }
        say("%d rules are active; %d minutes of storm%n", RULES, minutes);
        storm(nodes, Duration.ofMinutes(minutes));
        settle(nodes);
        owners(nodes.getFirst());
        return verdict();
    }

    private ServiceProcess node(String name) throws IOException, InterruptedException {
        var settings = new ArrayList<>(List.of(
                "-Xmx300m",
                "-XX:+UseSerialGC",
                "-XX:TieredStopAtLevel=1",
                "--oddsentry.mail.port=" + mail.port(),
                "--oddsentry.mail.time-limit=2s",
                "--oddsentry.mail.first-wait=1s",
                "--oddsentry.work.heartbeat=1s",
                "--spring.datasource.hikari.connection-timeout=3000"));
        var disk = SmallDisk.mount(32);
        disk.ifPresent(each -> settings.add("-Djava.io.tmpdir=" + each.folder()));
        var clock = FalseClock.in(lab.folder(), name);
        var node = lab.start(clock.map(FalseClock::environment).orElse(Map.of()), settings.toArray(String[]::new));
        faults.ofNode(name, node);
        clock.ifPresentOrElse(
                each -> faults.ofClock(name, each),
                () -> say("no clock jumps: Debian's package libfaketime is not installed%n"));
        disk.ifPresent(each -> faults.ofTemporaryDisk(name, each));
        return node;
    }

    /** @param critical minutes, of which no sailing is near, so that an edit moves no severity */
    private static String document(int rule, int critical, String subject) {
        return """
                kind: rule
                name: late-%d
                owner: Traffic reporting
                query: sailings-%d
                exceptions: delay_min > 15
                memory: { key: [id], report: [new, worsened], absence: clears }
                severity: [ { critical: delay_min >= %d }, warning ]
                schedule: { start: 2026-01-01T00:00:%02d, recur: FREQ=SECONDLY;INTERVAL=%d }
                delivery: { to: [rule-%d@skerryline.example], subject: "%s", max_per_hour: 1000, attach: [] }
                """.formatted(rule, rule, critical, rule % 20, 10 + rule % 20, rule, subject);
    }

    private void storm(List<ServiceProcess> nodes, Duration length)
            throws IOException, InterruptedException, SQLException {
        long began = System.nanoTime();
        while (true) {
            double seconds = (System.nanoTime() - began) / 1e9;
            if (seconds > length.toSeconds()) break;
            change();
            if (random.nextInt(40) == 0) edit(nodes.get(random.nextInt(nodes.size())));
            faults.move(seconds);
            // A process may end by itself, as where its temporary folder is full while it starts.
            for (var node : nodes) if (!node.isAlive()) node.startAgain();
            Thread.sleep(250);
        }
        faults.endAll();
        say("%d changes in the source, and of each fault: %s%n", changes, faults);
        say("%d edits of rules; the last that was refused: %s%n", edits.get(), lastRefusal);
    }

    /** A few new sailings, and one that gets worse; none of them ever goes away, so each must be told. */
    private void change() {
        var sql = new StringBuilder();
        for (int i = 0; i < 3; i++)
            sql.append("insert into sailing (rule, delay_min) values (")
                    .append(random.nextInt(RULES))
                    .append(", 20);");
        sql.append(
                "update sailing set delay_min = 60 where id = (select id from sailing where delay_min = 20 order by random() limit 1)");
        try {
            lab.execute("ferry", sql.toString());
            changes += 4;
        } catch (IllegalStateException stopped) {
            // nothing of it has happened
        }
    }

    /** Somebody edits a rule, and the operator unblocks the addresses that the mail server called wrong, if a node lets them. */
    private void edit(ServiceProcess node) {
        int rule = random.nextInt(RULES);
        int critical = 45 + random.nextInt(5);
        Thread.ofVirtual().start(() -> {
            try {
                var api = node.operator();
                api.push(document(rule, critical, "Late sailings, edit " + edits));
                edits.incrementAndGet();
                unblock(api);
            } catch (RuntimeException | AssertionError faulty) {
                // As people would, they try another time.
                lastRefusal = String.valueOf(faulty.getMessage());
            }
        });
    }

    private static void unblock(HttpApi api) {
        for (var each : api.get("/api/blocked-addresses"))
            api.delete("/api/blocked-addresses/" + each.path("address").asString());
    }

    private void settle(List<ServiceProcess> nodes) throws IOException, InterruptedException {
        mail.mood(Mood.TAKE);
        for (var node : nodes) {
            if (!node.isAlive()) node.startAgain();
            node.awaitAnswer();
        }
        unblock(nodes.getFirst().operator());
        await(LEFT_ALONE);
    }

    private void await(Duration limit) throws InterruptedException {
        long began = System.nanoTime();
        for (; System.nanoTime() - began < limit.toNanos(); Thread.sleep(2_000)) {
            boolean told = told() == count("ferry", "select count(*) from sailing")
                    && lab.count("select count(*) from finding where severity = 'CRITICAL'")
                            == count("ferry", "select count(*) from sailing where delay_min >= 45");
            boolean sent =
                    lab.count("select count(*) from message_recipient where state in ('QUEUED', 'SENDING', 'UNSURE')")
                            == 0;
            if (told && sent) break;
        }
        say("left alone for %d s%n", (System.nanoTime() - began) / 1_000_000_000);
    }

    /** Findings that are reported, by the service's own word: what was said when they opened stands with them until more is said. */
    private long told() {
        return lab.count("select count(*) from finding where coalesce(opening_reported, false)"
                + " or exists (select from last_report where finding_id = finding.id)");
    }

    /**
     * Where a message is unconfirmed, the owners know whether they have it: they say that it arrived, or
     * have it reported again.
     */
    private void owners(ServiceProcess node) throws InterruptedException, SQLException {
        var unconfirmed = new ArrayList<List<String>>();
        try (var connection = lab.connect("records");
                var statement = connection.createStatement();
                var rows = statement.executeQuery(
                        "select distinct m.id, m.message_id from message m join message_recipient r on r.message_id = m.id"
                                + " where r.state = 'UNCONFIRMED'")) {
            while (rows.next()) unconfirmed.add(List.of(rows.getString(1), rows.getString(2)));
        }
        var taken = Set.copyOf(mail.taken());
        var api = node.operator();
        int arrived = 0;
        for (var each : unconfirmed) {
            boolean has = taken.contains(each.getLast());
            if (has) arrived++;
            api.post("/api/outbox/" + each.getFirst() + (has ? "/confirm" : "/report-again"), "");
        }
        say(
                "unconfirmed: %d messages, of which %d had arrived; the owners said so of each%n",
                unconfirmed.size(), arrived);
        if (unconfirmed.size() > arrived) await(Duration.ofMinutes(3));
    }

    private long count(String database, String sql) {
        try (var connection = lab.connect(database);
                var statement = connection.createStatement();
                var rows = statement.executeQuery(sql)) {
            rows.next();
            return rows.getLong(1);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    private boolean verdict() throws SQLException {
        Set<String> taken = new HashSet<>(mail.taken());
        lab.execute("records", "create table taken (message_id text primary key)");
        try (var connection = lab.connect("records");
                var insert = connection.prepareStatement("insert into taken values (?)")) {
            for (String id : taken) {
                insert.setString(1, id);
                insert.addBatch();
            }
            insert.executeBatch();
        }
        // News that was told: each finding as new or as what it then was, and each worsening, with the messages that
        // were taken.
        String tellings =
                "select r.finding_id, kind, count(distinct r.message_id) as messages from report r cross join unnest(r.kinds) kind"
                        + " join message m on m.id = r.message_id join taken t on t.message_id = m.message_id"
                        + " where lower(kind) in ('new', 'worsened') group by r.finding_id, kind";
        long sailings = count("ferry", "select count(*) from sailing");
        long told = lab.count("select count(distinct finding_id) from (" + tellings + ") x");
        long twice = lab.count("select count(*) from (" + tellings + ") x where messages > 1");
        String critical = "select count(*) from finding f left join last_report r on r.finding_id = f.id"
                + " join message m on m.id = case when r.finding_id is null then f.opening_message else r.message_id end"
                + " join taken t on t.message_id = m.message_id where coalesce(r.severity, f.severity) = 'CRITICAL'";
        long worse = count("ferry", "select count(*) from sailing where delay_min >= 45") - lab.count(critical);
        long slots = lab.count("select count(*) - count(distinct (rule_id, slot)) from rule_check");
        long again = mail.taken().size() - taken.size();
        say("checks: %d, messages taken: %d%n", lab.count("select count(*) from rule_check"), taken.size());
        say("sailings in the source: %d; told in a message that was taken: %d%n", sailings, told);
        say("findings never mailed: %d%n", sailings - told);
        say("sailings that got worse, and whose mail does not say so: %d%n", worse);
        say("one finding's same news in two different messages: %d%n", twice);
        say("taken twice, always under the same Message-ID: %d%n", again);
        say("checks effective twice for one slot: %d%n", slots);
        return sailings == told && worse == 0 && twice == 0 && slots == 0;
    }

    private static void say(String format, Object... values) {
        System.out.printf(Locale.ROOT, format, values);
    }
}
