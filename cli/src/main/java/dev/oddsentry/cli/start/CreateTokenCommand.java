package dev.oddsentry.cli.start;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.IssuedToken;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "create-token",
        mixinStandardHelpOptions = true,
        description = "Create a token for a program, with a name, a use and an end.",
        footer = {"", "Example: odd create-token \"nightly pull\" --for read --days 90"})
public final class CreateTokenCommand extends ServiceCommand {
    /** What a token may be used for. */
    enum Use {
        read,
        check,
        write,
        operate
    }

    @Parameters(index = "0", paramLabel = "NAME", description = "What it is for; the list of tokens shows it.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Option(
            names = "--for",
            paramLabel = "USE",
            defaultValue = "read",
            description =
                    "read (default), check (also runs and checks), write (also changes) or operate (all that you may do).")
    @SuppressWarnings("NullAway.Init")
    Use use;

    @Option(
            names = "--days",
            paramLabel = "N",
            defaultValue = "30",
            description = "Days until it expires, 1 to 366. Default: 30.")
    int days;

    @Option(names = "--user", paramLabel = "LOGIN", description = "A service account that it is for (operators).")
    @Nullable
    String user;

    @Option(names = "--json", description = "The token as JSON.")
    boolean json;

    @Override
    public Integer call() {
        IssuedToken issued = api().post(
                        user == null ? "/api/tokens/named" : "/api/tokens/of/" + Api.part(user),
                        Map.of("name", name, "scope", use.name().toUpperCase(Locale.ROOT), "days", days),
                        IssuedToken.class);
        if (json) OutputOptions.printJson(out(), issued);
        else {
            out().println(issued.token());
            err().println("Store it now, it is not shown again. It expires " + Words.time(issued.expiresAt())
                    + ". Programs send it as: Authorization: Bearer TOKEN");
        }
        return 0;
    }
}
