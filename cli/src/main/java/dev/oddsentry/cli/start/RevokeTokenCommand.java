package dev.oddsentry.cli.start;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.ServiceCommand;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

@Command(
        name = "revoke-token",
        mixinStandardHelpOptions = true,
        description = "Revoke a token of yours; operators revoke those of others.",
        footer = {"", "Example: odd revoke-token 0c7d2f7e-6d3c-4a53-9b64-8b1d5a0e9c77"})
public final class RevokeTokenCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "ID", description = "Id of the token, from odd tokens.")
    @SuppressWarnings("NullAway.Init")
    String id;

    @Override
    public Integer call() {
        api().delete("/api/tokens/" + Api.part(id));
        out().println("Revoked.");
        return 0;
    }
}
