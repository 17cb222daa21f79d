package dev.oddsentry.bench;

import dev.oddsentry.service.HttpApi;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;

/**
 * A rule with a million findings on a million rows: whole checks of a real service process with a small heap, beside {@code psql \copy} of
 * the same query, in turn.
 */
public final class AtSize {
    private static final int ROWS = Integer.getInteger("odd.rows", 1_000_000);
    private static final int ROUNDS = Integer.getInteger("odd.rounds", 5);
    private static final String HEAP = System.getProperty("odd.heap", "256m");
    private static final String SQL =
            "select id, number, route, planned, delay_min, status, vessel, tickets, heads, fare, reason,"
                    + " logged from sailing";

    private static final long STATISTICS_MILLIS = 11_000;

    private AtSize() {}

    public static void main(String[] arguments) throws IOException, InterruptedException, SQLException {
        try (var lab = new Lab()) {
            lab.execute(
                    "ferry",
                    "create table sailing as select i as id, 'SK-' || i % 900 as number, 'Holm – Vik' as route,"
                            + " timestamptz '2026-11-24 04:40Z' + i * interval '1 second' as planned, 20 + i % 60 as delay_min,"
                            + " 'sailed' as status, 'Terna' as vessel, i % 300 as tickets, i % 280 as heads,"
                            + " round((i % 977) * 1.25, 2) as fare, null::text as reason, now() as logged"
                            + " from generate_series(1, " + ROWS + ") i");
            var node = lab.start("-Xmx" + HEAP, "-XX:+UseSerialGC");
            var api = node.operator();
            lab.saveSource(api, 4, 600);
            api.push("kind: query\nname: sailings\nsource: ferry\nsql: " + SQL + "\n");
            api.push("""
                    kind: rule
                    name: late
                    owner: Traffic reporting
                    query: sailings
                    exceptions: delay_min > 15 and reason is null
                    memory: { key: [id], watch: [delay_min], report: [new], first_check: treat_as_known, max_cleared: 100 % }
                    delivery: { to: [ines.holm@skerryline.example], attach: [] }
                    """);
            api.post("/api/rules/late/activate", "");
            lab.psqlCopy(SQL);
            say("psql \\copy, %,d rows x 12: %.2f s%n", ROWS, lab.psqlCopy(SQL));
            say("first check, all taken as known: %.2f s%n", check(api));
            var steady = new ArrayList<Double>();
            var limit = new ArrayList<Double>();
            for (int i = 0; i < ROUNDS; i++) {
                limit.add(lab.psqlCopy(SQL));
                move(lab, i);
                steady.add(check(api));
            }
            tell("steady check, 0.1 % each new, changed, gone", steady, limit);
            lab.execute("records", "vacuum finding");
            var still = new ArrayList<Double>();
            limit.clear();
            long written = written(lab);
            for (int i = 0; i < ROUNDS; i++) {
                limit.add(lab.psqlCopy(SQL));
                still.add(check(api));
            }
            tell("check in which nothing moved", still, limit);
            Thread.sleep(STATISTICS_MILLIS);
            say("rows written to memory by those: %d%n", written(lab) - written);
            say("most memory of the whole service process with a heap of %s: %s%n", HEAP, peak(node.pid()));
        }
    }

    private static void move(Lab lab, int round) {
        int part = ROWS / 1000;
        int from = round * 3 * part;
        lab.execute(
                "ferry",
                "update sailing set delay_min = delay_min + 1 where id > " + from + " and id <= " + (from + part) + ";"
                        + "delete from sailing where id > " + (from + part) + " and id <= " + (from + 2 * part) + ";"
                        + "insert into sailing select " + (ROWS * 2) + " + " + from
                        + " + i, 'SK-new', 'Holm – Vik', now(), 20,"
                        + " 'sailed', 'Terna', 1, 1, 1, null, now() from generate_series(1, " + part + ") i");
    }

    private static double check(HttpApi api) throws InterruptedException {
        long began = System.nanoTime();
        var check = api.check("late");
        while (check.path("state").asString("").equals("RUNNING")) {
            Thread.sleep(20);
            check = api.get("/api/checks/" + check.path("id").asString(""));
        }
        String state = check.path("state").asString("");
        if (!List.of("QUIET", "FIRED").contains(state))
            throw new IllegalStateException(state + ": " + check.path("reason").asString(""));
        return (System.nanoTime() - began) / 1e9;
    }

    /** As the statistics count them, which an idle session of PostgreSQL hands in up to ten seconds later. */
    private static long written(Lab lab) throws InterruptedException {
        Thread.sleep(STATISTICS_MILLIS);
        return lab.count("select sum(n_tup_ins + n_tup_upd + n_tup_del) from pg_stat_user_tables"
                + " where relname in ('finding', 'reported', 'finding_event', 'report')");
    }

    private static String peak(long pid) throws IOException {
        return Files.readAllLines(Path.of("/proc/" + pid + "/status")).stream()
                .filter(line -> line.startsWith("VmHWM"))
                .map(line -> line.substring("VmHWM:".length()).strip())
                .findFirst()
                .orElse("unknown");
    }

    private static void tell(String what, List<Double> took, List<Double> limit) {
        double ours = median(took);
        double theirs = median(limit);
        say("%s: %.2f s, %.2f x psql \\copy (%.2f s)%n", what, ours, ours / theirs, theirs);
    }

    private static double median(List<Double> all) {
        var sorted = new ArrayList<>(all);
        Collections.sort(sorted);
        return sorted.get(sorted.size() / 2);
    }

    private static void say(String format, Object... values) {
        System.out.printf(Locale.ROOT, format, values);
    }
}
