package dev.oddsentry.cli;

import static picocli.CommandLine.Model.UsageMessageSpec.SECTION_KEY_COMMAND_LIST;

import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.client.NotReachedException;
import dev.oddsentry.cli.common.ExitStatus;
import dev.oddsentry.cli.output.ProblemText;
import java.io.PrintWriter;
import java.util.Collection;
import java.util.List;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The command {@code odd}. Nouns list, verbs act. */
@Command(
        name = "odd",
        mixinStandardHelpOptions = true,
        versionProvider = Odd.Version.class,
        description = "Command line for Odd Sentry: rules, checks, findings and mail.",
        synopsisSubcommandLabel = "COMMAND",
        commandListHeading = "",
        footer = {
            "",
            "Example: odd check late-sailings",
            "Help for a group: odd help mail; for a command: odd check --help",
            "Exit status: 0 done, 1 answer is no or differs, 2 wrong use,",
            "3 not reached or not allowed, 4 invalid definition."
        })
public final class Odd {
    private static final GroupedCommands GROUPED = new GroupedCommands(Commands.GROUPS);

    static final class Version implements CommandLine.IVersionProvider {
        @Override
        public String[] getVersion() {
            String version = Odd.class.getPackage().getImplementationVersion();
            return new String[] {"odd " + (version == null ? "(not packaged)" : version)};
        }
    }

    public static void main(String[] arguments) {
        System.exit(paged(arguments));
    }

    private static int paged(String... arguments) {
        var err = new PrintWriter(System.err, true, System.err.charset());
        var console = System.console();
        var pager = Pager.command(console != null && console.isTerminal(), System.getenv(), arguments)
                .flatMap(command -> Pager.start(command, System.out.charset()));
        if (pager.isEmpty()) return run(new PrintWriter(System.out, true, System.out.charset()), err, arguments);
        try (var pages = pager.get()) {
            return run(new PrintWriter(pages.out(), true), err, arguments);
        }
    }

    /** Runs one command; results go to {@code out}, talk to {@code err}. */
    public static int run(PrintWriter out, PrintWriter err, String... arguments) {
        return commandLine(wanted(arguments))
                .setOut(out)
                .setErr(err)
                .setCaseInsensitiveEnumValuesAllowed(true)
                .setUsageHelpLongOptionsMaxWidth(28)
                .setParameterExceptionHandler((wrong, _) -> WrongUse.explain(wrong))
                .setExecutionExceptionHandler((exception, command, _) -> explain(exception, command))
                .execute(arguments);
    }

    /** With these of the commands. */
    private static CommandLine commandLine(Collection<String> names) {
        var line = new CommandLine(new Odd());
        for (String name : names) line.addSubcommand(name, Commands.of(name, GROUPED));
        line.getHelpSectionMap().put(SECTION_KEY_COMMAND_LIST, GROUPED::render);
        return line;
    }

    /** With all of them, as help and completion need it. */
    public static CommandLine whole() {
        return commandLine(Commands.names());
    }

    /** Reading what a command has for options takes longer than most of them do, so that only the one asked for is read. */
    private static Collection<String> wanted(String... arguments) {
        if (arguments.length == 0) return Commands.names();
        String first = arguments[0];
        if (Commands.names().contains(first) && !first.equals("completion")) return List.of(first);
        return first.equals("--version") || first.equals("-V") ? List.of() : Commands.names();
    }

    private static int explain(Exception exception, CommandLine command) throws Exception {
        return switch (exception) {
            case NotReachedException notReached -> {
                command.getErr().println(notReached.getMessage());
                yield ExitStatus.NOT_REACHED;
            }
            case ApiException refused -> {
                command.getErr().println(ProblemText.of(refused));
                yield ExitStatus.of(refused);
            }
            default -> throw exception;
        };
    }
}
