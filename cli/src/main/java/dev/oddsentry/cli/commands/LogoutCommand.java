package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Login;
import picocli.CommandLine.Command;

@Command(
        name = "logout",
        mixinStandardHelpOptions = true,
        description = "Ends the log-in and forgets its token.",
        footer = {"", "Example: odd logout"})
public final class LogoutCommand extends ServiceCommand {
    @Override
    public Integer call() {
        api().delete("/api/tokens/current");
        Login.forget();
        return 0;
    }
}
