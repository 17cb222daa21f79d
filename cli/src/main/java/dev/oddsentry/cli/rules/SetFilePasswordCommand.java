package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "set-file-password",
        mixinStandardHelpOptions = true,
        description = {
            "Set the password that encrypts attachments.",
            "It is read from standard input, stored encrypted and never shown again."
        },
        footer = {"", "Example: odd set-file-password certificates-without-number < password.txt"})
public final class SetFilePasswordCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Override
    public Integer call() throws IOException {
        var input = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
        String password = input.readLine();
        api().put(rule.path("/password"), Map.of("password", password == null ? "" : password));
        out().println("Attachments of " + rule.name()
                + " with pack: encrypted are encrypted with this password from now on.");
        return 0;
    }
}
