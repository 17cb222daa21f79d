package dev.oddsentry.cli;

import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "help",
        mixinStandardHelpOptions = true,
        description = "Describe the commands of a group, or all of them.",
        footer = {"", "Example: odd help mail", "         odd help all", "         odd help check"})
final class HelpCommand implements Callable<Integer> {
    private final GroupedCommands groups;

    @Spec
    @SuppressWarnings("NullAway.Init")
    private CommandSpec spec;

    @Parameters(
            arity = "0..1",
            paramLabel = "GROUP",
            description = "A word of the group's heading, such as rules or mail; all; or a command.")
    @Nullable
    String group;

    HelpCommand(GroupedCommands groups) {
        this.groups = groups;
    }

    @Override
    public Integer call() {
        var out = spec.commandLine().getOut();
        var whole = Odd.whole();
        if (group == null) {
            whole.usage(out);
            return 0;
        }
        if (group.equals("all")) {
            groups.groups().keySet().forEach(heading -> out.println(groups.described(heading, whole)));
            return 0;
        }
        var command = whole.getSubcommands().get(group);
        var heading = groups.heading(group);
        if (heading.isPresent())
            out.println(groups.described(heading.get(), whole).stripTrailing());
        else if (command != null) command.usage(out);
        else
            throw new ParameterException(
                    spec.commandLine(),
                    "There is no group or command \"" + group + "\". Groups: "
                            + String.join("; ", groups.groups().keySet()) + ".");
        return 0;
    }
}
