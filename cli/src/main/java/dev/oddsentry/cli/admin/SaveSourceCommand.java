package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.SavedSource;
import dev.oddsentry.contract.SourceTestOutcome;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "save-source",
        mixinStandardHelpOptions = true,
        description = {
            "Add or change a source (operators).",
            "The password is read from standard input and stored encrypted."
        },
        footer = {
            "",
            "Example: odd save-source ferry --jdbc-url jdbc:postgresql://127.0.0.1:5432/ferry --user ferry_reader --password-stdin",
            "Use a database role that can only read."
        })
public final class SaveSourceCommand extends ServiceCommand {
    @Parameters(paramLabel = "SOURCE", description = "Name of the source.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Option(
            names = "--jdbc-url",
            required = true,
            paramLabel = "URL",
            description = "jdbc:postgresql://HOST:PORT/DATABASE")
    @SuppressWarnings("NullAway.Init")
    String jdbcUrl;

    @Option(names = "--user", required = true, paramLabel = "NAME", description = "The database role.")
    @SuppressWarnings("NullAway.Init")
    String user;

    @Option(
            names = "--password-stdin",
            description = "Read a new password from standard input; without it, the stored one is kept.")
    boolean passwordFromInput;

    @Option(
            names = "--most-rows",
            paramLabel = "N",
            description = "Max rows of a result; more make the check fail (1000000).")
    @Nullable
    Long mostRows;

    @Option(
            names = "--time-limit",
            paramLabel = "SECONDS",
            description = "Max seconds of a query; then it is cancelled (60).")
    @Nullable
    Integer timeLimitSeconds;

    @Option(
            names = "--most-connections",
            paramLabel = "N",
            description = "Max queries at a time, min 2 (8). A quarter is reserved for queries run by hand.")
    @Nullable
    Integer mostConnections;

    @Option(
            names = "--closed",
            paramLabel = "HOURS",
            description = "Closed hours, in which checks wait. Example: \"22:00-04:30 Europe/Oslo\"")
    @Nullable
    String closed;

    @Option(
            names = "--spread",
            paramLabel = "SECONDS",
            description =
                    "Spread the starts of checks over this many seconds after their slots; each rule keeps its delay (0).")
    @Nullable
    Integer spreadSeconds;

    /** Who may use it; without it, nothing changes. */
    static final class Users {
        @Option(
                names = "--team",
                required = true,
                paramLabel = "TEAM",
                description = "Only members of this team may use it; may be given again. Otherwise as it is.")
        List<String> teams = List.of();

        @Option(names = "--every-team", required = true, description = "Every team may use it, as at first.")
        boolean everyTeam;
    }

    @ArgGroup
    @Nullable
    Users users;

    @Option(names = "--json", description = "The source as JSON, without its password.")
    boolean json;

    @Override
    public Integer call() throws IOException {
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("jdbcUrl", jdbcUrl);
        body.put("username", user);
        body.put("password", passwordFromInput ? password() : null);
        body.put("maxRows", mostRows);
        body.put("timeLimitSeconds", timeLimitSeconds);
        body.put("maxConnections", mostConnections);
        body.put("closed", closed);
        body.put("spreadSeconds", spreadSeconds);
        body.put("teams", users == null ? null : users.teams);
        Api api = api();
        SavedSource saved = api.put("/api/sources/" + Api.part(name), body, SavedSource.class);
        SourceTestOutcome test = saved.test();
        if (json) OutputOptions.printJson(out(), saved);
        else {
            out().println("Saved source " + name + ". " + test.detail());
            for (var warning : test.warnings()) out().println("Warning: " + warning);
        }
        return test.reached() ? 0 : 1;
    }

    private static String password() throws IOException {
        var input = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
        return Objects.requireNonNullElse(input.readLine(), "");
    }
}
