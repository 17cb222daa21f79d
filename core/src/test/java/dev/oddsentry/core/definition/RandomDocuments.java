package dev.oddsentry.core.definition;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Supplier;

/** Documents of all kinds, drawn at random: each field is there or not, and each value is one that the documentation allows. */
final class RandomDocuments {
    private static final List<String> WORDS = List.of(
            "Traffic reporting",
            "Skjærnes – Måkehamn",
            "it's: late",
            "# no comment",
            "- no item",
            "null",
            "yes",
            "0x1F",
            "1e3",
            "2026-01-01",
            "{a: b}",
            "*late",
            "a, b",
            "\"quoted\"",
            "two\nlines\n",
            "tab\there",
            "  spaces  ",
            "漁船",
            "%",
            "@");
    private static final List<String> CONDITIONS = List.of(
            "delay_min > 15",
            "reason is null and status <> 'cancelled'",
            "status in ('planned', 'it''s')",
            "planned in last 7 days",
            "delay_min > threshold('late_minutes', route)",
            "coalesce(trim(reason), '') = ''");
    private static final List<String> TIMES = List.of("3 minutes", "1 hour", "12 hours", "90 minutes");
    private static final List<String> ADDRESSES =
            List.of("person: ines", "Per Aune <per.aune@skerryline.example>", "siv@skerryline.example");
    private static final List<String> PEOPLE = List.of(
            "ines.holm@skerryline.example",
            "Per Aune <per.aune@skerryline.example>",
            "team: Traffic desk",
            "list: harbour-masters",
            "siv@skerryline.example, ola@skerryline.example");
    private static final List<String> COLUMNS = List.of("sailing_id", "delay_min", "Tür", "late by", "sum(litres)");
    private static final List<String> QUERIES = List.of("sailings-lately", "crew_hours", "q2");

    private final Random random;

    RandomDocuments(Random random) {
        this.random = random;
    }

    private <T> T one(List<T> of) {
        return of.get(random.nextInt(of.size()));
    }

    private String word() {
        return one(WORDS);
    }

    /** Between none and three different ones. */
    private <T> List<T> some(List<T> of) {
        var some = new ArrayList<T>();
        for (int i = random.nextInt(4); i > 0; i--) if (!some.contains(one(of))) some.add(one(of));
        return some.stream().distinct().toList();
    }

    private <T> List<T> few(List<T> of) {
        var few = some(of);
        return few.isEmpty() ? List.of(one(of)) : few;
    }

    private final class Fields {
        private final Map<String, Object> tree = new LinkedHashMap<>();

        Fields always(String name, Object value) {
            tree.put(name, value);
            return this;
        }

        Fields maybe(String name, Supplier<?> value) {
            if (random.nextInt(3) == 0) tree.put(name, value.get());
            return this;
        }
    }

    private Fields document(String kind) {
        return new Fields()
                .always("kind", kind)
                .always("name", one(QUERIES))
                .maybe("title", this::word)
                .maybe("id", () -> new java.util.UUID(random.nextLong(), random.nextLong()).toString());
    }

    Map<String, Object> any() {
        return switch (random.nextInt(10)) {
            case 0 -> query();
            case 1 -> calendar();
            case 2 ->
                document("threshold")
                        .maybe("unit", this::word)
                        .maybe("description", this::word)
                        .maybe("key", () -> some(COLUMNS))
                        .tree;
            case 3 -> layout(document("layout").maybe("private_to", () -> "ines")).tree;
            case 4 -> roundUp();
            case 5 -> document("recipient-list").always("recipients", few(ADDRESSES)).tree;
            default -> rule();
        };
    }

    private Map<String, Object> query() {
        return document("query")
                .always("source", "ferry")
                .always("sql", one(List.of("select 1", "select :day as day\nfrom sailings\n-- all\n", "select ' # '")))
                .maybe("categories", () -> some(List.of("sailings", "Månedlig", "night and day")))
                .maybe("parameters", () -> Map.of("day", parameter()))
                .maybe("columns", () -> Map.of("late by", column(), "route", column()))
                .tree;
    }

    private Map<String, Object> parameter() {
        var fields = new Fields();
        switch (random.nextInt(4)) {
            case 0 -> fields.always("type", "date").maybe("default", () -> one(List.of("today", "today - 7 days")));
            case 1 -> fields.always("type", "number").maybe("default", () -> one(List.of("15", "2.50", "-0.1")));
            case 2 -> fields.always("type", "truth").maybe("default", () -> one(List.of("true", "false")));
            default -> {
                if (random.nextBoolean())
                    fields.always("multiple", true).maybe("default", () -> few(List.of("Holm", "a, b", "say \"x\"")));
                else fields.maybe("default", this::word);
            }
        }
        return fields.maybe("optional", () -> true)
                .maybe("help", this::word)
                .maybe(
                        "choices",
                        () -> new Fields()
                                .always("from", "terminals")
                                .always("value", "name")
                                .maybe("label", () -> "late by")
                                .tree)
                .tree;
    }

    private Map<String, Object> column() {
        return new Fields()
                .maybe("label", this::word)
                .maybe("unit", this::word)
                .maybe("format", () -> one(List.of("0.00", "#,##0")))
                .maybe("words", () -> Map.of("1", word(), "no", word()))
                .tree;
    }

    private Map<String, Object> calendar() {
        return document("calendar")
                .maybe("week", () -> few(List.of("monday", "tuesday", "sunday")))
                .maybe("holidays", () -> Map.of("2026-05-17", word(), "2026-12-25", "Christmas"))
                .maybe("extra_working_days", () -> some(List.of("2026-05-16", "2027-01-02")))
                .maybe("periods", () -> some(List.of("2026-06-21", "2026-08-20")))
                .tree;
    }

    private Map<String, Object> roundUp() {
        return document("round-up")
                .always("owner", word())
                .maybe("zone", () -> "Asia/Kathmandu")
                .maybe("language", () -> one(List.of("en", "de", "nb")))
                .always("rules", few(QUERIES))
                .always("to", few(PEOPLE))
                .maybe("send_immediately", () -> one(List.of("notice", "warning", "critical")))
                .always("schedule", times().always("start", "2026-01-05T08:00").always("recur", "FREQ=WEEKLY").tree)
                .tree;
    }

    private Fields times() {
        return new Fields()
                .maybe("also", () -> some(List.of("2026-05-16T10:00", "2026-12-31T23:59:30")))
                .maybe("except", () -> some(List.of("2026-12-24", "2026-12-31T05:40")))
                .maybe("until", () -> "2027-01-01T00:00")
                .maybe("calendar", () -> "norway")
                .maybe("on_holidays", () -> one(List.of("skip", "next_working_day", "previous_working_day")));
    }

    Map<String, Object> rule() {
        boolean groups = random.nextInt(3) == 0;
        boolean full = random.nextInt(4) == 0;
        var rule = document("rule")
                .always("owner", word())
                .always("query", one(QUERIES))
                .maybe("zone", () -> one(List.of("Europe/Oslo", "UTC", "+05:45")))
                .maybe("labels", () -> some(List.of("sailings", "Nær")))
                .maybe("copied_from", this::word)
                .maybe("parameters", () -> Map.of("day", "today", "terminals", few(List.of("Holm", "a, b"))))
                .maybe("exceptions", () -> one(CONDITIONS))
                .maybe("severity", this::severity)
                .maybe("fire_when", () -> one(List.of("updates('new') > 0", "updates() > 3")));
        if (groups)
            rule.always("per", some(COLUMNS))
                    .maybe("measures", () -> Map.of("litres", "sum(litres)", "late", measure()));
        var memory = memory();
        if (!groups) memory.always("key", few(COLUMNS));
        if (full) memory.always("mode", "full");
        return rule.always("memory", memory.tree)
                .maybe("schedule", this::schedule)
                .maybe(
                        "limits",
                        () -> new Fields()
                                .maybe("time_limit", () -> one(TIMES))
                                .maybe("retries", () -> 1 + random.nextInt(5))
                                .maybe("retry_after", () -> one(TIMES))
                                .tree)
                .maybe(
                        "copies",
                        () -> new Fields()
                                .always("from", "managers")
                                .always("key", "terminal")
                                .maybe("address", () -> "mail to")
                                .maybe("greeting", this::word)
                                .maybe("parameters", () -> Map.of("terminal", "terminal"))
                                .maybe("newcomers", () -> one(List.of("report", "treat_as_known")))
                                .tree)
                .maybe("delivery", this::delivery)
                .tree;
    }

    private Map<String, Object> measure() {
        return new Fields()
                .always("value", "max(delay_min)")
                .maybe("label", this::word)
                .maybe("unit", this::word)
                .tree;
    }

    private List<Object> severity() {
        var bands = new ArrayList<Object>();
        for (var severity : some(List.of("critical", "warning", "notice")))
            bands.add(Map.of(severity, one(CONDITIONS)));
        bands.add(one(List.of("warning", "notice")));
        return bands;
    }

    private Fields memory() {
        return new Fields()
                .maybe("watch", () -> some(COLUMNS))
                .maybe("report", () -> few(List.of("new", "returned", "worsened", "improved", "cleared", "moved")))
                .maybe("absence", () -> one(List.of("clears", "ages_out", "stays_open")))
                .maybe("open_after", () -> one(List.of("3 checks", "40 minutes", "2 days")))
                .maybe("clear_after", () -> one(List.of("1 check", "2 checks", "6 hours")))
                .maybe("confirm_after", () -> "2 checks")
                .maybe("remind_every", () -> one(List.of("3 days", "12 hours")))
                .maybe("max_cleared", () -> one(List.of("30 %", "50%", "100 %")))
                .maybe("max_opened", () -> 1 + random.nextInt(500))
                .maybe("forget_after", () -> "90 days")
                .maybe("first_check", () -> one(List.of("report", "treat_as_known")));
    }

    private Map<String, Object> schedule() {
        var fields = times();
        if (random.nextBoolean()) fields.always("start", "2026-01-05 05:40").maybe("recur", () -> "FREQ=DAILY");
        if (fields.tree.containsKey("start")) fields.maybe("working_days", () -> some(List.of(3, -1, 23)));
        return fields.maybe("missed", () -> one(List.of("latest", "each", "skip")))
                .maybe("events", () -> some(QUERIES))
                .maybe(
                        "after",
                        () -> List.of(
                                "late",
                                new Fields()
                                        .always("rule", "bunkering")
                                        .maybe("on", () -> few(List.of("failed", "no_rows", "quiet")))
                                        .tree))
                .maybe(
                        "ready_when",
                        () -> new Fields()
                                .always("query", "loaded")
                                .maybe("every", () -> one(TIMES))
                                .maybe("until", () -> one(TIMES))
                                .tree)
                .maybe("when_empty", () -> one(List.of("quiet", "notify", "fail")))
                .tree;
    }

    private Map<String, Object> delivery() {
        var fields = new Fields()
                .maybe("to", () -> few(PEOPLE))
                .maybe("cc", () -> few(PEOPLE))
                .maybe("bcc", () -> few(PEOPLE))
                .maybe("reply_to", () -> "desk@skerryline.example");
        if (random.nextInt(3) == 0)
            fields.always("split_by", "terminal")
                    .maybe("split_to", () -> Map.of("Holm", few(PEOPLE), "null", "x@skerryline.example"))
                    .maybe("split_from", () -> "terminal-mail")
                    .maybe("split_address", () -> "mail to");
        switch (random.nextInt(4)) {
            case 0 -> fields.always("layout", "plain");
            case 1 -> fields.always("layout", layout(new Fields()).tree);
            case 2 -> fields.always("columns", few(COLUMNS));
            default -> {}
        }
        return fields.maybe("attach", () -> some(List.of("csv", "xlsx", "pdf", "html", "json", csv(), paper())))
                .maybe("pack", () -> one(List.of("zip", "encrypted")))
                .maybe("show", () -> one(List.of("rows", "link")))
                .maybe("language", () -> one(List.of("en", "de", "nb")))
                .maybe("subject", this::word)
                .maybe("opening", this::word)
                .maybe("closing", this::word)
                .maybe("send_when_quiet", random::nextBoolean)
                .maybe("max_per_hour", () -> 12)
                .maybe("allow_unsubscribe", random::nextBoolean)
                .maybe("thread", () -> one(List.of("none", "rule", "month", "day")))
                .maybe("chart", () -> "litres")
                .maybe(
                        "escalate",
                        () -> new Fields()
                                .always("after", one(TIMES))
                                .always("to", few(PEOPLE))
                                .maybe("severity", () -> "critical")
                                .tree)
                .maybe(
                        "also_send",
                        () -> List.of(
                                "crew",
                                new Fields()
                                        .always("query", "crew")
                                        .maybe("attach", () -> some(List.of("pdf", "csv")))
                                        .maybe("layout", () -> "plain")
                                        .maybe("rows_in_mail", () -> 5)
                                        .tree))
                .maybe("variants", () -> List.of(variant(), variant()))
                .tree;
    }

    private Map<String, Object> variant() {
        return new Fields()
                .always("for", few(PEOPLE))
                .always("attach", random.nextBoolean() ? List.of() : List.of("csv", paper()))
                .maybe("subject", this::word)
                .maybe("opening", this::word)
                .maybe("closing", this::word)
                .maybe("show", () -> one(List.of("rows", "link")))
                .maybe("rows_as", () -> one(List.of("table", "list", "figures")))
                .tree;
    }

    private Object csv() {
        return new Fields()
                .always("format", "csv")
                .maybe("file", () -> "late {date}")
                .maybe("delimiter", () -> one(List.of(";", "tab", "|", ",")))
                .maybe("decimal", () -> one(List.of(",", ".")))
                .maybe("encoding", () -> one(List.of("UTF-8", "latin1", "utf-16le")))
                .maybe("byte_order_mark", random::nextBoolean)
                .tree;
    }

    private Object paper() {
        return new Fields()
                .always("format", one(List.of("pdf", "xlsx")))
                .maybe("paper", () -> one(List.of("a3", "a4", "a5", "letter", "legal")))
                .maybe("orientation", () -> one(List.of("portrait", "landscape")))
                .maybe("margin", () -> 8 + random.nextInt(43))
                .maybe("header", () -> "{{rule}} on {{date}}")
                .maybe("footer", this::word)
                .maybe("frozen_columns", () -> random.nextInt(11))
                .maybe("filter", random::nextBoolean)
                .tree;
    }

    private Fields layout(Fields fields) {
        return fields.maybe(
                        "columns",
                        () -> List.of(
                                "delay_min",
                                new Fields()
                                        .always("column", "planned")
                                        .maybe("label", this::word)
                                        .maybe("format", () -> "0.0")
                                        .maybe("width", () -> 12)
                                        .maybe("total", () -> one(List.of("sum", "count", "average")))
                                        .tree))
                .maybe("sort", () -> some(List.of("delay_min desc", "route asc", "late by")))
                .maybe("group_by", () -> some(COLUMNS))
                .maybe("rows_in_mail", () -> 1 + random.nextInt(500))
                .maybe("still_open", random::nextBoolean)
                .maybe("fixed", random::nextBoolean)
                .maybe("sheet", () -> "Late sailings")
                .maybe("extra_columns", () -> some(List.of("update", "severity")));
    }
}
