package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "save-source",
        mixinStandardHelpOptions = true,
        description =
                "Adds a source or changes one, then tries it. For operators. The password is read from standard input and stored encrypted.",
        footer = {
            "",
            "Example: odd save-source ferry --jdbc-url jdbc:postgresql://127.0.0.1:5432/ferry --user ferry_reader --password-stdin",
            "Give it a role that may only read."
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

    @Option(names = "--password-stdin", description = "Reads a new password; without it the stored one stays.")
    boolean passwordFromInput;

    @Option(names = "--most-rows", paramLabel = "N", description = "A result with more rows fails (1000000).")
    @Nullable
    Long mostRows;

    @Option(names = "--time-limit", paramLabel = "SECONDS", description = "A query over it is cancelled (60).")
    @Nullable
    Integer timeLimitSeconds;

    @Option(
            names = "--most-connections",
            paramLabel = "N",
            description = "Queries that may run at once, at least 2 (8). A quarter of them is for queries run by hand.")
    @Nullable
    Integer mostConnections;

    @Option(
            names = "--closed",
            paramLabel = "HOURS",
            description = "Hours in which checks wait, such as \"22:00-04:30 Europe/Oslo\"; left out: always open.")
    @Nullable
    String closed;

    @Option(
            names = "--spread",
            paramLabel = "SECONDS",
            description = "Checks begin up to so long after their slots, each rule always as long (0).")
    @Nullable
    Integer spreadSeconds;

    @Option(names = "--json", description = "The source as JSON, without its password.")
    boolean json;

    @Override
    public Integer call() throws IOException {
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("jdbcUrl", jdbcUrl);
        body.put("username", user);
        body.put("password", passwordFromInput ? password() : null);
        body.put("mostRows", mostRows);
        body.put("timeLimitSeconds", timeLimitSeconds);
        body.put("mostConnections", mostConnections);
        body.put("closed", closed);
        body.put("spreadSeconds", spreadSeconds);
        Api api = api();
        JsonNode saved = api.put("/api/sources/" + Api.part(name), body);
        JsonNode test = saved.path("test");
        if (json) OutputOptions.printJson(out(), saved);
        else {
            out().println("Saved source " + name + ". " + test.path("words").asString(""));
            for (JsonNode warning : test.path("warnings")) out().println("Warning: " + warning.asString(""));
        }
        return test.path("reached").asBoolean(false) ? 0 : 1;
    }

    private static String password() throws IOException {
        var input = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
        return Objects.requireNonNullElse(input.readLine(), "");
    }
}
