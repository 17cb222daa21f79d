package dev.oddsentry.cli;

import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.client.NotReachedException;
import dev.oddsentry.cli.commands.AcceptCommand;
import dev.oddsentry.cli.commands.ActivateCommand;
import dev.oddsentry.cli.commands.AddPersonCommand;
import dev.oddsentry.cli.commands.BackTestCommand;
import dev.oddsentry.cli.commands.BadAddressesCommand;
import dev.oddsentry.cli.commands.CalendarsCommand;
import dev.oddsentry.cli.commands.CheckCommand;
import dev.oddsentry.cli.commands.ChecksCommand;
import dev.oddsentry.cli.commands.DatesCommand;
import dev.oddsentry.cli.commands.DiscardCommand;
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
import dev.oddsentry.cli.commands.OutboxCommand;
import dev.oddsentry.cli.commands.PauseCommand;
import dev.oddsentry.cli.commands.PreviewCommand;
import dev.oddsentry.cli.commands.PushCommand;
import dev.oddsentry.cli.commands.ReaderLanguagesCommand;
import dev.oddsentry.cli.commands.ReleaseCommand;
import dev.oddsentry.cli.commands.RevisionsCommand;
import dev.oddsentry.cli.commands.RoundUpCommand;
import dev.oddsentry.cli.commands.RoundUpsCommand;
import dev.oddsentry.cli.commands.RulesCommand;
import dev.oddsentry.cli.commands.SaveSourceCommand;
import dev.oddsentry.cli.commands.SaveTeamCommand;
import dev.oddsentry.cli.commands.SendOpenCommand;
import dev.oddsentry.cli.commands.SetFilePasswordCommand;
import dev.oddsentry.cli.commands.SetThresholdCommand;
import dev.oddsentry.cli.commands.SnoozeCommand;
import dev.oddsentry.cli.commands.SourcesCommand;
import dev.oddsentry.cli.commands.StatusCommand;
import dev.oddsentry.cli.commands.StopCommand;
import dev.oddsentry.cli.commands.TakeCommand;
import dev.oddsentry.cli.commands.TestMailCommand;
import dev.oddsentry.cli.commands.ThresholdsCommand;
import dev.oddsentry.cli.commands.TryCommand;
import dev.oddsentry.cli.output.ProblemText;
import java.io.PrintWriter;
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
        },
        subcommands = {
            LoginCommand.class,
            LogoutCommand.class,
            RulesCommand.class,
            ExplainCommand.class,
            CheckCommand.class,
            PreviewCommand.class,
            TryCommand.class,
            FindingsCommand.class,
            TakeCommand.class,
            ExportCommand.class,
            ExtractCommand.class,
            MailCommand.class,
            SnoozeCommand.class,
            AcceptCommand.class,
            ChecksCommand.class,
            StopCommand.class,
            ReleaseCommand.class,
            DiscardCommand.class,
            StatusCommand.class,
            OutboxCommand.class,
            LeaversCommand.class,
            ReaderLanguagesCommand.class,
            BadAddressesCommand.class,
            MessageCommand.class,
            TestMailCommand.class,
            HoldMailCommand.class,
            SendOpenCommand.class,
            SetFilePasswordCommand.class,
            PushCommand.class,
            DraftCommand.class,
            RevisionsCommand.class,
            BackTestCommand.class,
            HistoryCommand.class,
            DatesCommand.class,
            CalendarsCommand.class,
            RoundUpsCommand.class,
            RoundUpCommand.class,
            ImportCalendarCommand.class,
            FeedCommand.class,
            EventCommand.class,
            ThresholdsCommand.class,
            SetThresholdCommand.class,
            ImportThresholdCommand.class,
            ActivateCommand.class,
            PauseCommand.class,
            SourcesCommand.class,
            SaveSourceCommand.class,
            SaveTeamCommand.class,
            AddPersonCommand.class
        })
public final class Odd {
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
        return new CommandLine(new Odd())
                .setOut(out)
                .setErr(err)
                .setCaseInsensitiveEnumValuesAllowed(true)
                .setUsageHelpLongOptionsMaxWidth(28)
                .setExecutionExceptionHandler((exception, command, _) -> explain(exception, command))
                .execute(arguments);
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
