package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Login;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "logout",
        mixinStandardHelpOptions = true,
        description = "Ends the log-in and forgets its token.",
        footer = {"", "Example: odd logout"})
public final class LogoutCommand implements Callable<Integer> {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    ServiceOptions service;

    @Override
    public Integer call() {
        service.api().delete("/api/tokens/current");
        Login.forget();
        return 0;
    }
}
