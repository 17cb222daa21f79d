package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.Odd;
import java.util.concurrent.Callable;
import picocli.AutoComplete;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

@Command(
        name = "completion",
        mixinStandardHelpOptions = true,
        description = "Prints a script by which bash and zsh complete commands and options of odd.",
        footer = {
            "",
            "Example: odd completion > ~/.local/share/bash-completion/completions/odd",
            "         source <(odd completion)"
        })
public final class CompletionCommand implements Callable<Integer> {
    @Spec
    @SuppressWarnings("NullAway.Init")
    private CommandSpec spec;

    @Override
    public Integer call() {
        spec.commandLine().getOut().print(AutoComplete.bash("odd", Odd.whole()));
        spec.commandLine().getOut().flush();
        return 0;
    }
}
