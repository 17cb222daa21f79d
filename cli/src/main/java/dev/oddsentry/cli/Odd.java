package dev.oddsentry.cli;

import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.client.NotReachedException;
import dev.oddsentry.cli.commands.AcceptCommand;
import dev.oddsentry.cli.commands.ActCommand;
import dev.oddsentry.cli.commands.ActivateCommand;
import dev.oddsentry.cli.commands.AddPersonCommand;
import dev.oddsentry.cli.commands.BackTestCommand;
import dev.oddsentry.cli.commands.BadAddressesCommand;
import dev.oddsentry.cli.commands.CalendarsCommand;
import dev.oddsentry.cli.commands.CheckCommand;
import dev.oddsentry.cli.commands.ChecksCommand;
import dev.oddsentry.cli.commands.CompletionCommand;
import dev.oddsentry.cli.commands.CopyCommand;
import dev.oddsentry.cli.commands.DatesCommand;
import dev.oddsentry.cli.commands.DiffCommand;
import dev.oddsentry.cli.commands.DiscardCommand;
import dev.oddsentry.cli.commands.DoctorCommand;
import dev.oddsentry.cli.commands.DraftCommand;
import dev.oddsentry.cli.commands.EventCommand;
import dev.oddsentry.cli.commands.ExplainCommand;
import dev.oddsentry.cli.commands.ExportCommand;
import dev.oddsentry.cli.commands.ExtractCommand;
import dev.oddsentry.cli.commands.FeedCommand;
import dev.oddsentry.cli.commands.FindingsCommand;
import dev.oddsentry.cli.commands.HistoryCommand;
import dev.oddsentry.cli.commands.HoldMailCommand;
import dev.oddsentry.cli.commands.ImportCalendarCommand;
import dev.oddsentry.cli.commands.ImportThresholdCommand;
import dev.oddsentry.cli.commands.LeaversCommand;
import dev.oddsentry.cli.commands.LoginCommand;
import dev.oddsentry.cli.commands.LogoutCommand;
import dev.oddsentry.cli.commands.MailCommand;
import dev.oddsentry.cli.commands.MessageCommand;
import dev.oddsentry.cli.commands.OpenCommand;
import dev.oddsentry.cli.commands.OutboxCommand;
import dev.oddsentry.cli.commands.PauseCommand;
import dev.oddsentry.cli.commands.PeopleCommand;
import dev.oddsentry.cli.commands.PreviewCommand;
import dev.oddsentry.cli.commands.PullCommand;
import dev.oddsentry.cli.commands.PushCommand;
import dev.oddsentry.cli.commands.QueriesCommand;
import dev.oddsentry.cli.commands.QueryRunsCommand;
import dev.oddsentry.cli.commands.ReaderLanguagesCommand;
import dev.oddsentry.cli.commands.ReadersCommand;
import dev.oddsentry.cli.commands.ReleaseCommand;
import dev.oddsentry.cli.commands.RevisionsCommand;
import dev.oddsentry.cli.commands.RoundUpCommand;
import dev.oddsentry.cli.commands.RoundUpsCommand;
import dev.oddsentry.cli.commands.RulesCommand;
import dev.oddsentry.cli.commands.RunQueryCommand;
import dev.oddsentry.cli.commands.SaveSourceCommand;
import dev.oddsentry.cli.commands.SaveTeamCommand;
import dev.oddsentry.cli.commands.SchemaCommand;
import dev.oddsentry.cli.commands.SendOpenCommand;
import dev.oddsentry.cli.commands.SetFilePasswordCommand;
import dev.oddsentry.cli.commands.SetThresholdCommand;
import dev.oddsentry.cli.commands.SnoozeCommand;
import dev.oddsentry.cli.commands.SourcesCommand;
import dev.oddsentry.cli.commands.StatusCommand;
import dev.oddsentry.cli.commands.StopCommand;
import dev.oddsentry.cli.commands.TakeCommand;
import dev.oddsentry.cli.commands.TeamsCommand;
import dev.oddsentry.cli.commands.TestMailCommand;
import dev.oddsentry.cli.commands.TestSourceCommand;
import dev.oddsentry.cli.commands.ThresholdsCommand;
import dev.oddsentry.cli.commands.TryCommand;
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
        description = "Asks an Odd Sentry service: rules, checks, findings, mail.",
        synopsisSubcommandLabel = "COMMAND",
        footer = {
            "",
            "Example: odd check late-sailings",
            "",
            "Exit status: 0 done, 1 the check failed or the answer is no,",
            "2 wrong usage, 3 service not reached or not allowed."
        })
public final class Odd {
    /** In the order in which people work. */
    private static final List<String> COMMANDS = List.of(
            "login",
            "logout",
            "rules",
            "copy",
            "act",
            "readers",
            "explain",
            "check",
            "preview",
            "try",
            "findings",
            "open",
            "take",
            "export",
            "extract",
            "mail",
            "snooze",
            "accept",
            "checks",
            "stop",
            "release",
            "discard",
            "status",
            "doctor",
            "outbox",
            "leavers",
            "reader-languages",
            "bad-addresses",
            "message",
            "test-mail",
            "hold-mail",
            "send-open",
            "set-file-password",
            "queries",
            "run-query",
            "query-runs",
            "pull",
            "diff",
            "push",
            "schema",
            "draft",
            "revisions",
            "backtest",
            "history",
            "dates",
            "calendars",
            "round-ups",
            "round-up",
            "import-calendar",
            "feed",
            "event",
            "thresholds",
            "set-threshold",
            "import-threshold",
            "activate",
            "pause",
            "sources",
            "test-source",
            "save-source",
            "save-team",
            "add-person",
            "people",
            "teams",
            "completion");

    /** A switch, so that the others are not even loaded. */
    private static Object command(String name) {
        return switch (name) {
            case "login" -> new LoginCommand();
            case "logout" -> new LogoutCommand();
            case "rules" -> new RulesCommand();
            case "copy" -> new CopyCommand();
            case "act" -> new ActCommand();
            case "readers" -> new ReadersCommand();
            case "explain" -> new ExplainCommand();
            case "check" -> new CheckCommand();
            case "preview" -> new PreviewCommand();
            case "try" -> new TryCommand();
            case "findings" -> new FindingsCommand();
            case "open" -> new OpenCommand();
            case "take" -> new TakeCommand();
            case "export" -> new ExportCommand();
            case "extract" -> new ExtractCommand();
            case "mail" -> new MailCommand();
            case "snooze" -> new SnoozeCommand();
            case "accept" -> new AcceptCommand();
            case "checks" -> new ChecksCommand();
            case "stop" -> new StopCommand();
            case "release" -> new ReleaseCommand();
            case "discard" -> new DiscardCommand();
            case "status" -> new StatusCommand();
            case "doctor" -> new DoctorCommand();
            case "outbox" -> new OutboxCommand();
            case "leavers" -> new LeaversCommand();
            case "reader-languages" -> new ReaderLanguagesCommand();
            case "bad-addresses" -> new BadAddressesCommand();
            case "message" -> new MessageCommand();
            case "test-mail" -> new TestMailCommand();
            case "hold-mail" -> new HoldMailCommand();
            case "send-open" -> new SendOpenCommand();
            case "set-file-password" -> new SetFilePasswordCommand();
            case "queries" -> new QueriesCommand();
            case "run-query" -> new RunQueryCommand();
            case "query-runs" -> new QueryRunsCommand();
            case "pull" -> new PullCommand();
            case "diff" -> new DiffCommand();
            case "push" -> new PushCommand();
            case "schema" -> new SchemaCommand();
            case "draft" -> new DraftCommand();
            case "revisions" -> new RevisionsCommand();
            case "backtest" -> new BackTestCommand();
            case "history" -> new HistoryCommand();
            case "dates" -> new DatesCommand();
            case "calendars" -> new CalendarsCommand();
            case "round-ups" -> new RoundUpsCommand();
            case "round-up" -> new RoundUpCommand();
            case "import-calendar" -> new ImportCalendarCommand();
            case "feed" -> new FeedCommand();
            case "event" -> new EventCommand();
            case "thresholds" -> new ThresholdsCommand();
            case "set-threshold" -> new SetThresholdCommand();
            case "import-threshold" -> new ImportThresholdCommand();
            case "activate" -> new ActivateCommand();
            case "pause" -> new PauseCommand();
            case "sources" -> new SourcesCommand();
            case "test-source" -> new TestSourceCommand();
            case "save-source" -> new SaveSourceCommand();
            case "save-team" -> new SaveTeamCommand();
            case "add-person" -> new AddPersonCommand();
            case "people" -> new PeopleCommand();
            case "teams" -> new TeamsCommand();
            case "completion" -> new CompletionCommand();
            default -> throw new IllegalStateException("no command " + name);
        };
    }

    /** Where the service could not be reached, or did not allow it. */
    public static final int NOT_REACHED = 3;

    static final class Version implements CommandLine.IVersionProvider {
        @Override
        public String[] getVersion() {
            String version = Odd.class.getPackage().getImplementationVersion();
            return new String[] {"odd " + (version == null ? "(not packaged)" : version)};
        }
    }

    public static void main(String[] arguments) {
        System.exit(run(new PrintWriter(System.out, true), new PrintWriter(System.err, true), arguments));
    }

    /** Runs one command; results go to {@code out}, talk to {@code err}. */
    public static int run(PrintWriter out, PrintWriter err, String... arguments) {
        return commandLine(wanted(arguments))
                .setOut(out)
                .setErr(err)
                .setCaseInsensitiveEnumValuesAllowed(true)
                .setUsageHelpLongOptionsMaxWidth(28)
                .setExecutionExceptionHandler((exception, command, _) -> explain(exception, command))
                .execute(arguments);
    }

    /** With these of the commands. */
    private static CommandLine commandLine(Collection<String> names) {
        var line = new CommandLine(new Odd());
        for (String name : names) line.addSubcommand(name, command(name));
        return line;
    }

    /** With all of them, as help and completion need it. */
    public static CommandLine whole() {
        return commandLine(COMMANDS);
    }

    /** Reading what a command has for options takes longer than most of them do, so that only the one asked for is read. */
    private static Collection<String> wanted(String... arguments) {
        if (arguments.length == 0) return COMMANDS;
        String first = arguments[0];
        if (COMMANDS.contains(first)) return List.of(first);
        return first.equals("--version") || first.equals("-V") ? List.of() : COMMANDS;
    }

    private static int explain(Exception exception, CommandLine command) throws Exception {
        return switch (exception) {
            case NotReachedException notReached -> {
                command.getErr().println(notReached.getMessage());
                yield NOT_REACHED;
            }
            case ApiException refused -> {
                command.getErr().println(ProblemText.of(refused));
                yield refused.isAboutAccess() ? NOT_REACHED : CommandLine.ExitCode.SOFTWARE;
            }
            default -> throw exception;
        };
    }
}
