package dev.oddsentry.bench;

import java.io.IOException;
import java.sql.SQLException;
import java.util.Locale;

/** Thousands of rules, each due every minute or every few, on one node: how late their checks begin. */
public final class OnTime {
    private static final int RULES = Integer.getInteger("odd.rules", 5_000);
    private static final int MINUTES = Integer.getInteger("odd.minutes", 5);

    private OnTime() {}

    public static void main(String[] arguments) throws IOException, InterruptedException, SQLException {
        try (var lab = new Lab()) {
            lab.execute(
                    "ferry", "create table sailing as select i as id, 20 as delay_min from generate_series(1, 50) i");
            var node = lab.start(
                    "-Xmx1g", "--oddsentry.work.at-once=32", "--spring.datasource.hikari.maximum-pool-size=24");
            var api = node.operator();
            lab.saveSource(api, 16, 60);
            api.push("kind: query\nname: sailings\nsource: ferry\nsql: select id, delay_min from sailing\n");
            for (int i = 0; i < RULES; i++) {
                // Spread over the minutes and the seconds, as people's schedules are not, but a service with so many is
                // run.
                int every = 1 + i % 5;
                int second = i % 60;
                api.push("""
                        kind: rule
                        name: late-%d
                        owner: Traffic reporting
                        query: sailings
                        exceptions: delay_min > 15
                        memory: { key: [id], first_check: treat_as_known }
                        schedule: { start: 2026-01-01T00:%02d:%02d, recur: FREQ=MINUTELY;INTERVAL=%d }
                        delivery: { to: [ines.holm@skerryline.example] }
                        """.formatted(i, i % every, second, every));
                api.post("/api/rules/late-" + i + "/activate", "");
            }
            say("%,d rules are active%n", RULES);
            // The first check of each writes fifty findings; steady ones are measured.
            Thread.sleep(6 * 60_000L);
            String from = "now()";
            lab.execute("records", "create table began as select " + from + " as at");
            Thread.sleep(MINUTES * 60_000L);
            String some =
                    " from rule_check where origin = 'SCHEDULED' and slot > (select at from began) and started_at is not null";
            say(
                    "checks: %,d in %d minutes, %.1f a second%n",
                    lab.count("select count(*)" + some),
                    MINUTES,
                    lab.count("select count(*)" + some) / (MINUTES * 60.0));
            say(
                    "lateness: p50 %d ms, p99 %d ms, most %d ms%n",
                    late(lab, "0.5", some), late(lab, "0.99", some), late(lab, "1", some));
            say("due and not begun at the end: %d%n", lab.count("select count(*) from rule where next_slot < now()"));
            say(
                    "not good: %d%n",
                    lab.count("select count(*)" + some + " and state not in ('QUIET', 'FIRED', 'RUNNING')"));
        }
    }

    private static long late(Lab lab, String percentile, String some) {
        return lab.count("select coalesce(1000 * percentile_cont(" + percentile
                + ") within group (order by extract(epoch from started_at - slot)), 0)" + some);
    }

    private static void say(String format, Object... values) {
        System.out.printf(Locale.ROOT, format, values);
    }
}
