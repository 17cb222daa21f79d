package dev.oddsentry.cli.start;

import dev.oddsentry.cli.client.Login;
import dev.oddsentry.cli.common.ServiceCommand;
import picocli.CommandLine.Command;

@Command(
        name = "logout",
        mixinStandardHelpOptions = true,
        description = "Log out and delete the stored token.",
        footer = {"", "Example: odd logout"})
public final class LogoutCommand extends ServiceCommand {
    @Override
    public Integer call() {
        api().delete("/api/tokens/current");
        Login.forget();
        return 0;
    }
}
