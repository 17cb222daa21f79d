package dev.oddsentry.cli.commands;

import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(
        name = "test-mail",
        mixinStandardHelpOptions = true,
        description =
                "Tries each mail server, logs in where a log-in is set, sends nothing, and says what is wrong. For operators.",
        footer = {"", "Example: odd test-mail"})
public final class TestMailCommand extends ServiceCommand {
    @Option(names = "--json", description = "The answers as JSON.")
    boolean json;

    @Override
    public Integer call() {
        JsonNode tried = api().post("/api/mail/test", null);
        boolean any = false;
        for (JsonNode each : tried) any |= each.path("reached").asBoolean(false);
        if (json) OutputOptions.printJson(out(), tried);
        else
            for (JsonNode each : tried)
                out().println(each.path("server").asString("") + ": "
                        + each.path("words").asString(""));
        return any ? 0 : 1;
    }
}
