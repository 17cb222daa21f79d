package dev.oddsentry.service;

import java.util.UUID;

/** A table of sailings, a query on it and a rule that watches it, under a name of their own for each test. */
public final class LateSailings {
    private final RunningService service;
    public final String name;
    public final String recipient;
    private String memory = "memory: { key: [sailing], report: [new, returned, worsened, cleared], absence: clears }";
    private String schedule = "";
    private String exceptions = "delay_min > 15 and reason is null";

    public LateSailings(RunningService service) {
        this.service = service;
        this.name = "late-" + UUID.randomUUID().toString().substring(0, 8);
        this.recipient = name + "@skerryline.example";
        service.ferry("create table \"" + name + "\" (sailing text, delay_min int, reason text)");
    }

    public LateSailings memory(String yaml) {
        memory = yaml;
        return this;
    }

    public LateSailings schedule(String yaml) {
        schedule = yaml;
        return this;
    }

    public LateSailings exceptions(String condition) {
        exceptions = condition;
        return this;
    }

    public LateSailings late(String sailing, int minutes) {
        service.ferry("insert into \"" + name + "\" values ('" + sailing + "', " + minutes + ", null)");
        return this;
    }

    public void change(String sql) {
        service.ferry(sql.replace("sailing_table", "\"" + name + "\""));
    }

    public LateSailings active() {
        service.api().push(query("select sailing, delay_min, reason from \"" + name + "\""));
        service.api().push(rule());
        service.api().post("/api/rules/" + name + "/activate", "");
        return this;
    }

    /** Saves the query alone, and gives the rule's document. */
    public String saved() {
        service.api().push(query("select sailing, delay_min, reason from \"" + name + "\""));
        return rule();
    }

    public String query(String sql) {
        return "kind: query\nname: " + name + "\nsource: ferry\nsql: '" + sql.replace("'", "''") + "'\n"
                + "columns: { sailing: { label: Sailing }, delay_min: { label: Late by, unit: min }, reason: { label: Reason } }\n";
    }

    public String rule() {
        return """
                kind: rule
                name: %s
                title: Late sailings of %s
                owner: Traffic reporting
                query: %s
                zone: Europe/Oslo
                exceptions: %s
                severity: [ { critical: delay_min >= 45 }, warning ]
                %s
                %s
                delivery: { to: [%s] }
                """.formatted(name, name, name, exceptions, memory, schedule, recipient);
    }
}
