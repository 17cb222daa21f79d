package dev.oddsentry.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.cli.Odd;
import dev.oddsentry.cli.common.ExitStatus;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.json.JsonMapper;

/** The command line against the running service: what it prints, where, and its exit status. */
class CommandLineTest {
    private static final JsonMapper JSON = new JsonMapper();

    private final RunningService service = RunningService.get();
    private final LateSailings sailings = new LateSailings(service);

    @TempDir
    Path folder;

    private record Ran(int status, String out, String err) {}

    @BeforeEach
    void logIn() {
        System.setProperty("user.home", folder.toString());
        InputStream before = System.in;
        System.setIn(
                new ByteArrayInputStream((RunningService.OPERATOR_PASSWORD + "\n").getBytes(StandardCharsets.UTF_8)));
        try {
            assertThat(odd("login", "--user", "operator", "--password-stdin").out)
                    .contains("as Operator");
        } finally {
            System.setIn(before);
        }
    }

    private Ran odd(String... arguments) {
        var out = new StringWriter();
        var err = new StringWriter();
        var whole = new ArrayList<>(List.of(arguments));
        whole.addAll(List.of("--url", service.baseUrl()));
        int status = Odd.run(new PrintWriter(out, true), new PrintWriter(err, true), whole.toArray(String[]::new));
        return new Ran(status, out.toString(), err.toString());
    }

    private Path file(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text);
    }

    @Test
    void pushActivateCheckAndReadWhatCameOfIt() throws IOException {
        sailings.late("SK-1", 20).late("SK-2", 60);
        Path query = file("q.yaml", sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        Path rule = file("r.yaml", sailings.rule());
        assertThat(odd("push", query.toString(), rule.toString(), "--reason", "first").out)
                .contains(
                        "Saved query " + sailings.name + " as revision 1.",
                        "Saved rule " + sailings.name + " as revision 1.");
        assertThat(odd("push", rule.toString()).out).contains("unchanged at revision 1");
        assertThat(odd("activate", sailings.name).out).contains("is active");
        assertThat(odd("explain", sailings.name).out)
                .contains(
                        "Exception     each row that matches: late by more than 15 min and reason is missing",
                        "Severity      critical: late by at least 45 min; otherwise warning",
                        "Reports       new, returned, worsened and cleared findings; one finding per sailing");
        assertThat(odd("preview", sailings.name).out)
                .contains("2 exceptions (▲ 1 critical, ◆ 1 warning); a check now would report 2.", "[60]", "[missing]");
        var first = odd("check", sailings.name);
        assertThat(first.out).contains("fired: 2 rows read, 2 exceptions, 2 reported.");
        assertThat(first.status).isZero();
        assertThat(odd("check", sailings.name).out).as("the same check").contains("fired: 2 rows read");
        assertThat(odd("check", sailings.name, "--again").out)
                .contains("quiet: 2 rows read, 2 exceptions, nothing new.");
        assertThat(odd("findings", sailings.name).out).containsPattern("▲ critical +open .*SK-2 +60  missing");
        assertThat(odd("findings", sailings.name, "--state", "cleared").out)
                .contains("No findings of " + sailings.name + " are cleared.");
        assertThat(odd("checks", sailings.name, "--csv").out)
                .startsWith("Slot,Origin,Outcome,Rows")
                .contains(",fired,2,2,0,2,");
        assertThat(odd("outbox", "--rule", sailings.name).out)
                .contains("1 critical, 1 warning: Late sailings of", sailings.recipient);
        assertThat(odd("rules").out).contains(sailings.name, "▲ 1 critical, ◆ 1 warning");
        assertThat(odd("pause", sailings.name).out).contains("is paused");
        assertThat(odd("check", sailings.name, "--again").status).isEqualTo(1);
    }

    @Test
    void whatBeginsAndHoldsUpChecksIsSaidInWords() throws IOException {
        String event = "loaded-" + sailings.name;
        sailings.late("SK-1", 20)
                .schedule("schedule: { start: 2026-01-01T05:40, recur: FREQ=DAILY, events: [" + event + "] }")
                .active();
        assertThat(odd("trigger").out).contains(event);
        assertThat(odd("trigger", event).out).contains(event + " starts a check of " + sailings.name + ".");
        RunningService.await("the check", () -> odd("checks", sailings.name).out.contains("fired"));
        assertThat(odd("checks", sailings.name).out).contains(event);
        assertThat(odd("dates", sailings.name, "--count", "2").err)
                .contains("every day at 05:40; when " + event + " is reported");
        var slip = odd("trigger", event.substring(0, event.length() - 1));
        assertThat(slip.status).isEqualTo(1);
        assertThat(slip.err).contains("Did you mean \"" + event + "\"?");
        assertThat(odd("trigger", event, "--value", "season=summer").err).contains("has a parameter season");
        assertThat(odd("pause", sailings.name).status).isZero();
    }

    @Test
    void theMailAndTheExtractOfNowAreFiles() throws IOException {
        sailings.late("SK-1", 20).active();
        Path mail = folder.resolve("late.eml");
        assertThat(odd("preview-mail", sailings.name, "--out", mail.toString()).out)
                .contains("Saved the next message of " + sailings.name);
        assertThat(mail)
                .content()
                .contains("Subject: 1 warning: Preview: Late sailings of", "To: " + sailings.recipient);
        Path extract = folder.resolve("late.csv");
        assertThat(odd("extract", sailings.name, "--out", extract.toString()).status)
                .isZero();
        assertThat(extract).content().contains("SK-1");
        assertThat(odd("findings", sailings.name).out).as("no trace").doesNotContain("SK-1");
    }

    @Test
    void everyListingIsJsonOnRequest() {
        sailings.late("SK-1", 20).active();
        for (String[] command : new String[][] {
            {"rules"},
            {"findings", sailings.name},
            {"checks", sailings.name},
            {"outbox"},
            {"preview", sailings.name},
            {"thresholds"},
            {"explain", sailings.name},
            {"measurements", sailings.name},
            {"sources"},
            {"check", sailings.name}
        }) {
            var whole = new ArrayList<>(List.of(command));
            whole.add("--json");
            var ran = odd(whole.toArray(String[]::new));
            assertThat(ran.status).isZero();
            assertThat(JSON.readTree(ran.out).isContainer()).isTrue();
        }
    }

    @Test
    void refusedDefinitionShowsTheLineAndTheNearestName() throws IOException {
        service.api().push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        Path rule = file("late.rule.yaml", sailings.rule().replace("reason is null", "resaon is null"));
        var ran = odd("push", rule.toString());
        assertThat(ran.status).isEqualTo(ExitStatus.INVALID);
        assertThat(ran.err)
                .contains(
                        "late.rule.yaml:7:32: unknown column \"resaon\"; the query returns: sailing, delay_min, reason")
                .contains("    exceptions: delay_min > 15 and resaon is null\n" + " ".repeat(35)
                        + "^ did you mean \"reason\"?")
                .contains("was not saved");
        assertThat(ran.out).isEmpty();
    }

    @Test
    void anyConditionCanBeTriedOnAnyQuery() {
        service.api()
                .push(sailings.late("SK-1", 20)
                        .late("SK-2", 60)
                        .late("SK-3", 5)
                        .query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        var tried = odd(
                "try",
                "--query",
                sailings.name,
                "--key",
                "sailing",
                "delay_min > 15 and coalesce(reason, '') not like 'f%'");
        assertThat(tried.out)
                .contains(
                        "3 rows read, 2 exceptions, 0 unknown.",
                        "2 rows matching after: delay_min > 15",
                        "SK-1",
                        "SK-2")
                .doesNotContain("SK-3");
        var json = JSON.readTree(odd("try", "--query", sailings.name, "--rows", "--json", "reason = 'fog'").out);
        assertThat(json.path("unknownRows").asInt()).isEqualTo(3);
        assertThat(json.path("rows").isArray()).isTrue();
        var wrong = odd("try", "--query", sailings.name, "delay_mni > 15");
        assertThat(wrong.status).isEqualTo(ExitStatus.INVALID);
        assertThat(wrong.err).contains("condition:1:1: unknown column \"delay_mni\"", "did you mean \"delay_min\"?");
        assertThat(odd("try", "--query", "nope", "true").err).contains("There is no query \"nope\".");
    }

    @Test
    void aThresholdIsGivenPlannedImportedAndItsEffectCounted() throws IOException {
        String late = "late_" + UUID.randomUUID().toString().substring(0, 8);
        assertThat(odd(
                                "push",
                                file("t.yaml", "kind: threshold\nname: " + late + "\nunit: min\nkey: [sailing]\n")
                                        .toString())
                        .out)
                .contains("Saved threshold " + late);
        assertThat(odd("set-threshold", late, "15").err).contains("Give a reason with --reason");
        assertThat(odd("set-threshold", late, "15", "--reason", "as agreed").status)
                .isZero();
        sailings.exceptions("delay_min > threshold('" + late + "', sailing)")
                .late("SK-1", 20)
                .late("SK-2", 60)
                .active();
        assertThat(odd("set-threshold", late, "90", "--for", "SK-2", "--effect").out)
                .contains(sailings.name)
                .containsPattern("2 +1");
        Path table = file("t.csv", "\ufeffsailing;from;number\n\"SK-2\";;90\nSK-1;2031-06-01;a dozen\n");
        assertThat(odd("import-threshold", late, table.toString(), "--reason", "from the sheet").err)
                .contains("a dozen");
        Files.writeString(table, "sailing;from;number\n\"SK-2\";;90\nSK-1;2031-06-01;12,5\n");
        assertThat(odd("import-threshold", late, table.toString(), "--reason", "from the sheet").out)
                .contains("2 values read");
        assertThat(odd("thresholds", late).out)
                .containsPattern("default +always +15")
                .containsPattern("SK-1 +2031-06-01 +12.5 +planned");
        assertThat(odd("thresholds").out).containsPattern(late + ".* " + sailings.name);
        assertThat(odd("check", sailings.name).out).contains("2 rows read, 1 exception, 1 reported.");
    }

    @Test
    void groupsAreTriedAndADraftIsHeldAgainstTheSavedRule() throws IOException {
        sailings.late("SK-1", 20)
                .late("SK-2", 60)
                .late("SK-2", 10)
                .memory("memory: { key: [sailing, delay_min] }")
                .active();
        assertThat(odd("try", "--query", sailings.name, "--per", "sailing", "sum(delay_min) > 60").out)
                .contains(
                        "3 rows read, 1 exception, 0 unknown.", "1 group matching after: sum(delay_min) > 60", "SK-2");
        assertThat(odd("try", "--query", sailings.name, "--per", "all", "count() < 3").out)
                .contains("0 exceptions");
        Path draft = file("draft.yaml", sailings.exceptions("delay_min > 30").rule());
        assertThat(odd("preview", sailings.name, "--draft", draft.toString()).out)
                .contains("1 exception in both, 0 added, 1 removed.", "  - SK-1, 20");
    }

    @Test
    void aBackTestShowsItsVariantsAndHistoryIsFilledIn() {
        String day = "watched-" + UUID.randomUUID().toString().substring(0, 8);
        service.api()
                .push("kind: query\nname: " + day
                        + "\nsource: ferry\nsql: select extract(day from cast(:day as date))::int as day_of_month\n"
                        + "parameters: { day: { type: date, default: today } }\n");
        service.api()
                .push(
                        "kind: rule\nname: " + day + "\ntitle: Days\nowner: Traffic reporting\nquery: " + day
                                + "\nzone: Europe/Oslo\nper: []\nmeasures: { day: max(day_of_month) }\nexceptions: day > 0 and change(day) <> 0\n"
                                + "schedule: { start: 2026-01-01T05:00, recur: FREQ=DAILY }\ndelivery: { to: [a@skerryline.example] }\n");
        var tested = odd("backtest", day, "--days", "20");
        assertThat(tested.out)
                .contains("Calculated from today's data", "as saved")
                .containsPattern("as saved +(19|20|21) ");
        assertThat(odd("measurements", day).out).contains("No measurements yet. Each scheduled check adds one.");
        assertThat(odd("measurements", day, "--backfill-days", "10").status).isZero();
        assertThat(odd("measurements", day, "--points").out.lines().count()).isBetween(10L, 13L);
        assertThat(odd("backtest", sailings.active().name).err).contains("reads the same rows at every slot");
    }

    @Test
    void wrongUsageExitsWithTwoAndAServiceNotReachedWithThree() {
        assertThat(odd("chek").status).isEqualTo(2);
        assertThat(odd("push", "/no/such/file").status).isEqualTo(2);
        assertThat(odd("push", "/no/such/file").err).contains("No such file: /no/such/file.");
        assertThat(odd("rules", "--json", "--csv").status).isEqualTo(2);
        var err = new StringWriter();
        int status = Odd.run(
                new PrintWriter(new StringWriter()),
                new PrintWriter(err, true),
                "rules",
                "--url",
                "http://127.0.0.1:1");
        assertThat(status).isEqualTo(3);
        assertThat(odd("logout").status).isZero();
        assertThat(odd("rules").status).isEqualTo(3);
        assertThat(odd("rules").err).contains("You are not logged in", "odd login");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "login",
                "logout",
                "rules",
                "explain",
                "check",
                "preview",
                "try",
                "findings",
                "checks",
                "outbox",
                "push",
                "activate",
                "pause",
                "thresholds",
                "set-threshold",
                "import-threshold",
                "backtest",
                "measurements",
                "sources",
                "save-source",
                "add-person"
            })
    void everyCommandHelpsWithAnExample(String command) {
        var out = new StringWriter();
        assertThat(Odd.run(new PrintWriter(out, true), new PrintWriter(new StringWriter()), command, "--help"))
                .isZero();
        assertThat(out.toString())
                .contains(
                        "Usage: odd " + command,
                        "Example: odd " + command,
                        command.equals("logout") ? "--url" : "--json");
    }
}
