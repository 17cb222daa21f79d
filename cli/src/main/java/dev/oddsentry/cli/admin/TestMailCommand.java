package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import java.util.HashMap;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "test-mail",
        mixinStandardHelpOptions = true,
        description = {
            "Test the mail servers; sends nothing (operators).",
            "Connects, logs in and asks whether the server accepts mail to an address."
        },
        footer = {"", "Example: odd test-mail", "         odd test-mail ines.holm@skerryline.example"})
public final class TestMailCommand extends ServiceCommand {
    @Parameters(arity = "0..1", paramLabel = "ADDRESS", description = "Address to ask about. Default: your own.")
    @Nullable
    String to;

    @Option(names = "--json", description = "The results as JSON.")
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
                        + each.path("detail").asString(""));
        return any ? 0 : 1;
    }
}
