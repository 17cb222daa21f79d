package dev.oddsentry.cli.commands;

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
            "Keeps the password with which a rule's attached files are encrypted (pack: encrypted). It is read from standard input, stored",
            "encrypted, and never given out again: tell it to the recipients by another way."
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
        out().println("The files of " + rule.name()
                + " are encrypted with that password from now on, where it says pack: encrypted.");
        return 0;
    }
}
