package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.MailServerTest;
import java.util.HashMap;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

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
        List<MailServerTest> tried = api().postForList("/api/mail/test" + Api.query(asked), null, MailServerTest.class);
        boolean any = false;
        for (var each : tried) any |= each.reached();
        if (json) OutputOptions.printJson(out(), tried);
        else for (var each : tried) out().println(each.server() + ": " + each.detail());
        return any ? 0 : 1;
    }
}
