package dev.oddsentry.cli.start;

import dev.oddsentry.cli.common.ServiceCommand;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Objects;
import picocli.CommandLine.Command;

@Command(
        name = "password",
        mixinStandardHelpOptions = true,
        description = {
            "Change your password.",
            "The present and the new password are asked for, or are the first two lines of standard input."
        },
        footer = {"", "Example: odd password"})
public final class PasswordCommand extends ServiceCommand {
    @Override
    public Integer call() throws IOException {
        var console = System.console();
        String present;
        String wanted;
        if (console != null && console.isTerminal()) {
            present = new String(Objects.requireNonNullElse(console.readPassword("Present password: "), new char[0]));
            wanted = new String(Objects.requireNonNullElse(console.readPassword("New password: "), new char[0]));
        } else {
            var input = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
            present = Objects.requireNonNullElse(input.readLine(), "");
            wanted = Objects.requireNonNullElse(input.readLine(), "");
        }
        api().put("/api/session/password", Map.of("present", present, "password", wanted));
        out().println("Your password is changed. Log in again: all your sessions and tokens have ended.");
        return 0;
    }
}
