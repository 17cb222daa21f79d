package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import java.util.HashMap;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "test-mail",
        mixinStandardHelpOptions = true,
        description =
                "Tests each mail server as far as the recipient: connects, logs in, and asks whether it takes mail to an address. Sends nothing. For operators.",
        footer = {"", "Example: odd test-mail", "         odd test-mail ines.holm@skerryline.example"})
public final class TestMailCommand extends ServiceCommand {
    @Parameters(arity = "0..1", paramLabel = "ADDRESS", description = "Whom to ask about. Default: your own address.")
    @Nullable
    String to;

    @Option(names = "--json", description = "The answers as JSON.")
    boolean json;

    @Override
    public Integer call() {
        var asked = new HashMap<String, @Nullable String>();
        asked.put("to", to);
        JsonNode tried = api().post("/api/mail/test" + Api.query(asked), null);
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
