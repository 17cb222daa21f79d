package dev.oddsentry.service.visibility;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.TestInstance;

/** What one team has and hides, one of everything, with users who may see it and users who may not. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
abstract class HiddenEstate {
    final RunningService service = RunningService.get();
    final HttpApi operator = service.api();
    final LateSailings sailings = new LateSailings(service);
    /** In every name of what is hidden. */
    final String mark = sailings.name;

    final String wordMark = mark.replace('-', '_');
    final String suffix = UUID.randomUUID().toString().substring(0, 6);
    final String vault = "Vault " + suffix;
    final String shop = "Shop " + suffix;
    final String guests = "Guests " + suffix;
    final String open = "open-" + suffix;
    final Map<String, HttpApi> people = new HashMap<>();
    final Map<String, String> ids = new HashMap<>();
    Counts before;

    record Counts(int activeRules, int holds, long findings, int others) {}

    @BeforeAll
    void peopleAndWhatIsHidden() {
        for (String team : List.of(vault, shop, guests))
            operator.put("/api/teams/" + encoded(team), Map.of("addresses", List.of("deck@skerryline.example")));
        user("keeper", "LEAD", vault);
        user("guest", "ANALYST", guests);
        user("stranger", "LEAD", shop);
        user("reader", "READER", shop);
        user("auditor", "AUDITOR", shop);
        people.put(
                "mailed",
                HttpApi.newUser(
                        service,
                        "mailed-" + suffix,
                        "READER",
                        List.of(shop),
                        sailings.recipient.toUpperCase(Locale.ROOT)));
        people.put("operator", operator);
        before = counts();
        shareWhatIsOpen();
        hideOneOfEverything();
    }

    private void user(String who, String role, String team) {
        String login = who + "-" + suffix;
        people.put(who, HttpApi.newUser(service, login, role, List.of(team), login + "@skerryline.example"));
    }

    /** What everybody sees, and what is hidden uses: it must not say by what. */
    private void shareWhatIsOpen() {
        sailings.late("SK-1", 60).late("SK-2", 20);
        operator.push("kind: query\nname: " + open + "\nsource: ferry\n"
                + "sql: select sailing, delay_min, reason from \"" + mark + "\" where :day >= date '2000-01-01'\n"
                + "parameters: { day: { type: date, default: today } }\n");
        operator.push("kind: threshold\nname: limit_" + suffix + "\nunit: min\n");
        operator.post(
                "/api/thresholds/limit_" + suffix + "/values",
                Map.of("values", List.of(Map.of("key", List.of(), "number", 15)), "reason", "a test"));
        operator.push("kind: calendar\nname: " + open + "\nweek: [monday]\n");
    }

    private void hideOneOfEverything() {
        String hidden = "\nowner: " + vault + "\nvisible_to: [" + guests + "]\n";
        var source = operator.get("/api/sources").path(0);
        operator.put(
                "/api/sources/source-" + mark,
                Map.of(
                        "jdbcUrl",
                        source.path("jdbcUrl").asString(),
                        "username",
                        source.path("username").asString(),
                        "password",
                        "reader",
                        "teams",
                        List.of(vault)));
        operator.push("kind: query\nname: query-" + mark + "\nsource: source-" + mark
                + "\nsql: select sailing, delay_min, reason from \"" + mark + "\"" + hidden);
        operator.push("kind: threshold\nname: threshold_" + wordMark + "\nunit: min" + hidden);
        operator.push("kind: calendar\nname: calendar-" + mark + "\nweek: [monday]" + hidden);
        operator.push("kind: layout\nname: layout-" + mark + "\nrows_as: list" + hidden);
        operator.push(
                "kind: recipient-list\nname: list-" + mark + "\nrecipients: [" + sailings.recipient + "]" + hidden);
        for (String rule : List.of("rule-" + mark, "broken-" + mark)) {
            operator.push("""
                    kind: rule
                    name: %s
                    title: Of %s
                    owner: %s
                    visible_to: [%s]
                    query: %s
                    exceptions: delay_min > threshold('limit_%s') and reason is null
                    memory: { key: [sailing], report: [new] }
                    schedule: { start: 2026-01-05T06:00, recur: FREQ=DAILY, calendar: %s, events: [event-%s] }
                    delivery: { to: [%s] }
                    """.formatted(rule, mark, vault, guests, open, suffix, open, mark, sailings.recipient));
        }
        String rule = "/api/rules/rule-" + mark;
        operator.post(rule + "/activate", "");
        operator.post("/api/holds", Map.of("rule", "rule-" + mark, "reason", "of " + mark));
        operator.check("rule-" + mark);
        operator.push("kind: round-up\nname: round-up-" + mark + "\nto: [" + sailings.recipient + "]\nrules: [rule-"
                + mark + "]\nschedule: { start: 2026-01-05T06:00, recur: FREQ=WEEKLY }" + hidden);
        ids.put(
                "/checks/",
                operator.get(rule + "/checks").path("checks").path(0).path("id").asString());
        ids.put(
                "/outbox/",
                operator.get("/api/outbox?rule=rule-" + mark)
                        .path("messages")
                        .path(0)
                        .path("id")
                        .asString());
        ids.put("/extracts/", ids.get("/outbox/"));
        ids.put(
                "/long-work/",
                operator.post(rule + "/back-tests", Map.of("days", 1))
                        .path("id")
                        .asString());
        ids.put(
                "/holds/",
                operator.get("/api/holds")
                        .valueStream()
                        .filter(each -> each.path("rule").asString().equals("rule-" + mark))
                        .findFirst()
                        .orElseThrow()
                        .path("id")
                        .asString());
        breakTheOther();
        retireOne(hidden);
    }

    /** Its checks fail, which is an incident with a message of its own. */
    private void breakTheOther() {
        String broken = "/api/rules/broken-" + mark;
        operator.post(broken + "/activate", "");
        sailings.change("alter table sailing_table rename column delay_min to was_delay_min");
        operator.send("POST", broken + "/checks?again=true", "", Map.of());
        sailings.change("alter table sailing_table rename column was_delay_min to delay_min");
    }

    private void retireOne(String hidden) {
        operator.push("kind: calendar\nname: retired-" + mark + "\nweek: [friday]" + hidden);
        operator.post("/api/definitions/calendar/retired-" + mark + "/retire", Map.of("reason", "of " + mark));
    }

    Counts counts() {
        var stranger = people.get("stranger");
        var status = stranger.get("/api/status");
        Instant today = Instant.now().truncatedTo(ChronoUnit.DAYS);
        var day = stranger.get("/api/day?from=" + today + "&until=" + today.plus(1, ChronoUnit.DAYS));
        return new Counts(
                status.path("activeRules").asInt(),
                status.path("holds").asInt(),
                stranger.get("/api/findings").path("total").asLong(),
                day.path("others").asInt());
    }

    static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }
}
