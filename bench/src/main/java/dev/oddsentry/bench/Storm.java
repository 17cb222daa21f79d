package dev.oddsentry.bench;

import dev.oddsentry.service.ServiceProcess;
import dev.oddsentry.service.UnwillingMailServer;
import dev.oddsentry.service.UnwillingMailServer.Mood;
import java.io.IOException;
import java.sql.SQLException;
import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;

/**
 * Two nodes and two hundred rules over data that changes, while a random node is killed every few seconds, the mail server refuses, hangs
 * and drops the line before and after it took the message, and PostgreSQL restarts twice. Afterwards the source's own log of changes is
 * held against what the mail server took.
 */
public final class Storm {
    private static final int RULES = Integer.getInteger("odd.rules", 200);
    private static final Mood[] MOODS = {
        Mood.TAKE, Mood.BUSY, Mood.HANG, Mood.DROP_BEFORE_DATA, Mood.TAKE_AND_DROP_BEFORE_ANSWER, Mood.TAKE
    };

    private final Random random;
    private final Lab lab;
    private final UnwillingMailServer mail;
    private long changes;

    private Storm(Lab lab, UnwillingMailServer mail, long seed) {
        this.lab = lab;
        this.mail = mail;
        this.random = new Random(seed);
    }

    public static void main(String[] arguments) throws IOException, InterruptedException, SQLException {
        int minutes = arguments.length == 0 ? 10 : Integer.parseInt(arguments[0]);
        long seed = Long.getLong("odd.seed", System.nanoTime());
        System.out.println("seed " + seed + " (give it again as JAVA_OPTIONS=-Dodd.seed=" + seed + ")");
        boolean clean;
        try (var lab = new Lab();
                var mail = new UnwillingMailServer(Mood.TAKE)) {
            clean = new Storm(lab, mail, seed).run(minutes);
        }
        System.exit(clean ? 0 : 1);
    }

    private boolean run(int minutes) throws IOException, InterruptedException, SQLException {
        lab.execute(
                "ferry",
                "create table sailing (id bigint generated always as identity primary key, rule int not null, delay_min int not null,"
                        + " logged timestamptz not null default clock_timestamp()); create index on sailing (rule);"
                        + "grant select on sailing to ferry_reader");
        String[] settings = {
            "-Xmx300m",
            "-XX:+UseSerialGC",
            "-XX:TieredStopAtLevel=1",
            "--oddsentry.mail.port=" + mail.port(),
            "--oddsentry.mail.time-limit=2s",
            "--oddsentry.mail.first-wait=1s",
            "--oddsentry.work.heartbeat=1s",
            "--spring.datasource.hikari.connection-timeout=3000"
        };
        var nodes = List.of(lab.start(settings), lab.start(settings));
        var api = nodes.getFirst().operator();
        lab.saveSource(api, 8, 20);
        for (int rule = 0; rule < RULES; rule++) {
            api.push("kind: query\nname: sailings-" + rule
                    + "\nsource: ferry\nsql: select id, delay_min from sailing where rule = " + rule + "\n");
            api.push("""
                    kind: rule
                    name: late-%d
                    owner: Traffic reporting
                    query: sailings-%d
                    exceptions: delay_min > 15
                    memory: { key: [id], report: [new, worsened], absence: put right }
                    severity: [ { critical: delay_min >= 45 }, warning ]
                    schedule: { start: 2026-01-01T00:00:%02d, recur: FREQ=SECONDLY;INTERVAL=%d }
                    delivery: { to: [rule-%d@skerryline.example], attach csv: false }
                    """.formatted(rule, rule, rule % 20, 10 + rule % 20, rule));
            api.post("/api/rules/late-" + rule + "/activate", "");
        }
        say("%d rules are active; %d minutes of storm%n", RULES, minutes);
        storm(nodes, Duration.ofMinutes(minutes));
        settle(nodes);
        return verdict();
    }

    private void storm(List<ServiceProcess> nodes, Duration length) throws IOException, InterruptedException {
        long began = System.nanoTime();
        long nextKill = 5;
        int kills = 0;
        int restarts = 0;
        while (true) {
            double seconds = (System.nanoTime() - began) / 1e9;
            if (seconds > length.toSeconds()) break;
            change();
            if (random.nextInt(8) == 0) mail.mood(MOODS[random.nextInt(MOODS.length)]);
            if (seconds > nextKill) {
                var victim = nodes.get(random.nextInt(nodes.size()));
                victim.kill();
                victim.startAgain();
                kills++;
                nextKill = (long) seconds + 4 + random.nextInt(10);
            }
            if (restarts < 2 && seconds > length.toSeconds() * (restarts + 1) / 3.0) {
                lab.postgres().restart();
                restarts++;
            }
            Thread.sleep(250);
        }
        say("killed %d times, PostgreSQL restarted %d times, %d changes%n", kills, restarts, changes);
    }

    /** A few new sailings, a few that get worse; none of them ever goes away, so each must be told. */
    private void change() {
        var sql = new StringBuilder();
        for (int i = 0; i < 3; i++, changes++)
            sql.append("insert into sailing (rule, delay_min) values (" + random.nextInt(RULES) + ", 20);");
        try {
            lab.execute("ferry", sql.toString());
        } catch (IllegalStateException restarting) {
            changes -= 3;
        }
    }

    private void settle(List<ServiceProcess> nodes) throws IOException, InterruptedException {
        mail.mood(Mood.TAKE);
        for (var node : nodes) node.awaitAnswer();
        for (long end = System.nanoTime() + Duration.ofMinutes(6).toNanos();
                System.nanoTime() < end;
                Thread.sleep(2_000)) {
            long all = ferry("select count(*) from sailing");
            boolean told = lab.count("select count(*) from finding where not standing") == all;
            boolean sent =
                    lab.count("select count(*) from message_recipient where state in ('WAITING', 'HANDING_OVER')") == 0;
            if (told && sent) return;
        }
        say("it did not settle within six minutes%n");
    }

    private long ferry(String sql) {
        try (var connection = lab.connect("ferry");
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
        long sailings = ferry("select count(*) from sailing");
        String tellings =
                "select r.finding_id, count(distinct r.message_id) as messages from report r join message m on m.id = r.message_id"
                        + " join taken t on t.message_id = m.message_id group by r.finding_id";
        long told = lab.count("select count(*) from (" + tellings + ") x");
        long twice = lab.count("select count(*) from (" + tellings + ") x where messages > 1");
        long slots = lab.count("select count(*) - count(distinct (rule_id, slot)) from rule_check");
        long again = mail.taken().size() - taken.size();
        say("checks: %d, messages taken: %d%n", lab.count("select count(*) from rule_check"), taken.size());
        say("sailings in the source: %d; told in a message that was taken: %d%n", sailings, told);
        say("findings never mailed: %d%n", sailings - told);
        say("one finding's same news in two different messages: %d%n", twice);
        say("taken twice, always under the same Message-ID: %d%n", again);
        say("checks effective twice for one slot: %d%n", slots);
        return sailings == told && twice == 0 && slots == 0;
    }

    private static void say(String format, Object... values) {
        System.out.printf(Locale.ROOT, format, values);
    }
}
