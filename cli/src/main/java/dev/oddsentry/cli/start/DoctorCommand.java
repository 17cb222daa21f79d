package dev.oddsentry.cli.start;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.client.NotReachedException;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.CalendarView;
import dev.oddsentry.contract.MailServerTest;
import dev.oddsentry.contract.SourceTestOutcome;
import dev.oddsentry.contract.SourceView;
import dev.oddsentry.contract.StatusView;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;

@Command(
        name = "doctor",
        mixinStandardHelpOptions = true,
        description = {
            "Test service, clock, sources and mail; suggest fixes.",
            "Exit status 0: no problems. 1: something is wrong. 3: the service cannot be reached."
        },
        footer = {"", "Example: odd doctor"})
public final class DoctorCommand extends ServiceCommand {
    private static final Duration CLOCKS_APART = Duration.ofSeconds(30);

    @Option(names = "--json", description = "The results as JSON.")
    boolean json;

    private final ArrayNode seen = new JsonMapper().createArrayNode();
    private boolean ill;

    @Override
    public Integer call() {
        Api api = api();
        StatusView status = service(api);
        if (status != null) {
            clock(status);
            ill |= troubles(status);
            sources(api);
            mail(api);
            calendars(api);
        }
        if (json) OutputOptions.printJson(out(), seen);
        else out().println(ill ? "Something needs attention." : "No problems.");
        return ill ? 1 : 0;
    }

    /** That it answers with its records at all says that its database does. */
    private @Nullable StatusView service(Api api) {
        try {
            StatusView status = api.get("/api/status", StatusView.class);
            good(
                    "service and database",
                    "node " + status.node() + " answers, "
                            + Words.count(status.activeRules(), "active rule") + ", " + status.running()
                            + " running");
            return status;
        } catch (ApiException failed) {
            if (failed.isAboutAccess()) throw failed;
            bad(
                    "service and database",
                    String.valueOf(failed.getMessage()),
                    "The service cannot read its records. Check that PostgreSQL runs, and look up the reference in the service's log.");
            return null;
        } catch (NotReachedException gone) {
            err().println("✕ service: " + gone.getMessage());
            err().println("  Start the service, or set its address with --url or ODD_URL.");
            throw gone;
        }
    }

    private void clock(StatusView status) {
        var apart = Duration.between(Instant.parse(String.valueOf(status.at())), Instant.now())
                .abs();
        if (apart.compareTo(CLOCKS_APART) <= 0)
            good("clock", "within " + Math.max(1, apart.toSeconds()) + " s of this computer's");
        else
            bad(
                    "clock",
                    apart.toSeconds() + " s apart from this computer's",
                    "Schedules use the service's clock. Synchronise both computers with a time server.");
    }

    private boolean troubles(StatusView status) {
        for (var problem : status.problems()) bad("work", problem, "See odd status, odd outbox and odd checks RULE.");
        if (status.problems().isEmpty()) good("work", "no late or failing checks, no stuck messages");
        return !status.problems().isEmpty();
    }

    private void sources(Api api) {
        List<SourceView> sources = api.list("/api/sources", SourceView.class);
        if (sources.isEmpty())
            bad("sources", "none", "An operator adds one with: odd save-source NAME --jdbc-url … --user …");
        for (var source : sources) {
            String name = source.name();
            SourceTestOutcome tried =
                    api.post("/api/sources/" + Api.part(name) + "/test", null, SourceTestOutcome.class);
            String words = tried.detail();
            if (tried.reached()) {
                if (tried.warnings().isEmpty()) good("source " + name, words);
                for (var warning : tried.warnings())
                    bad(
                            "source " + name,
                            warning,
                            "Queries run in read-only transactions. Grant the role SELECT only.");
            } else
                bad(
                        "source " + name,
                        words,
                        "Check that the database runs and accepts "
                                + source.username() + " at "
                                + source.jdbcUrl() + ". New password: odd save-source " + name
                                + " --password-stdin.");
        }
    }

    private void mail(Api api) {
        try {
            for (var each : api.postForList("/api/mail/test", null, MailServerTest.class)) {
                String name = "mail server " + each.server();
                String words = each.detail();
                if (each.reached()) good(name, words);
                else
                    bad(
                            name,
                            words,
                            "Check oddsentry.mail.* in the service's settings. Messages wait in the outbox until the server works.");
            }
        } catch (ApiException notAllowed) {
            if (!notAllowed.isAboutAccess()) throw notAllowed;
            say("–", "mail servers", "tested for operators only", null);
        }
    }

    private void calendars(Api api) {
        var soon = LocalDate.now(ZoneId.systemDefault()).plusDays(60);
        for (var calendar : api.list("/api/calendars", CalendarView.class)) {
            var until = calendar.knownUntil();
            if (calendar.rules().isEmpty() || until == null) continue;
            String name = calendar.name();
            if (until.isAfter(soon)) good("calendar " + name, "holidays are known until " + until);
            else
                bad(
                        "calendar " + name,
                        "holidays are known until " + until + " only",
                        "Add more with: odd import-calendar " + name + " FILE.ics");
        }
    }

    private void good(String what, String words) {
        say("✓", what, words, null);
    }

    private void bad(String what, String words, String advice) {
        ill = true;
        say("✕", what, words, advice);
    }

    private void say(String sign, String what, String words, @Nullable String advice) {
        var each = seen.addObject()
                .put("what", what)
                .put("well", sign.equals("✓") ? "yes" : sign.equals("✕") ? "no" : "unknown")
                .put("detail", words);
        if (advice != null) each.put("advice", advice);
        if (json) return;
        out().println(sign + " " + what + ": " + words);
        if (advice != null) out().println("  " + advice);
    }
}
