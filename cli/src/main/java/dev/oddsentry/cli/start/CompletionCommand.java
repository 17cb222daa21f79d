package dev.oddsentry.cli.start;

import java.util.concurrent.Callable;
import picocli.AutoComplete;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

@Command(
        name = "completion",
        mixinStandardHelpOptions = true,
        description = "Print the completion script for bash and zsh.",
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
        spec.commandLine().getOut().print(AutoComplete.bash("odd", spec.root().commandLine()));
        spec.commandLine().getOut().flush();
        return 0;
    }
}
