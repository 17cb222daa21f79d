package dev.oddsentry.cli;

import dev.oddsentry.cli.admin.AccessCommand;
import dev.oddsentry.cli.admin.AddPersonCommand;
import dev.oddsentry.cli.admin.AuditCommand;
import dev.oddsentry.cli.admin.ChangePersonCommand;
import dev.oddsentry.cli.admin.HandOverCommand;
import dev.oddsentry.cli.admin.PeopleCommand;
import dev.oddsentry.cli.admin.PersonCommand;
import dev.oddsentry.cli.admin.RemoveTeamCommand;
import dev.oddsentry.cli.admin.RenameTeamCommand;
import dev.oddsentry.cli.admin.SaveSourceCommand;
import dev.oddsentry.cli.admin.SaveTeamCommand;
import dev.oddsentry.cli.admin.TeamCommand;
import dev.oddsentry.cli.admin.TeamsCommand;
import dev.oddsentry.cli.admin.TestMailCommand;
import dev.oddsentry.cli.archive.ArchiveCommand;
import dev.oddsentry.cli.archive.RemoveCommand;
import dev.oddsentry.cli.archive.RestoreCommand;
import dev.oddsentry.cli.archive.RetireCommand;
import dev.oddsentry.cli.checks.ApproveCommand;
import dev.oddsentry.cli.checks.CalendarsCommand;
import dev.oddsentry.cli.checks.CheckCommand;
import dev.oddsentry.cli.checks.ChecksCommand;
import dev.oddsentry.cli.checks.DatesCommand;
import dev.oddsentry.cli.checks.DiscardCommand;
import dev.oddsentry.cli.checks.FeedCommand;
import dev.oddsentry.cli.checks.ImportCalendarCommand;
import dev.oddsentry.cli.checks.StatementCommand;
import dev.oddsentry.cli.checks.StopCommand;
import dev.oddsentry.cli.checks.TriggerCommand;
import dev.oddsentry.cli.checks.WeekCommand;
import dev.oddsentry.cli.data.QueriesCommand;
import dev.oddsentry.cli.data.QueryRunsCommand;
import dev.oddsentry.cli.data.RunQueryCommand;
import dev.oddsentry.cli.data.SourcesCommand;
import dev.oddsentry.cli.data.TestSourceCommand;
import dev.oddsentry.cli.findings.AcceptCommand;
import dev.oddsentry.cli.findings.AllFindingsCommand;
import dev.oddsentry.cli.findings.ExplainCommand;
import dev.oddsentry.cli.findings.ExportCommand;
import dev.oddsentry.cli.findings.FindingsCommand;
import dev.oddsentry.cli.findings.FindingsOverTimeCommand;
import dev.oddsentry.cli.findings.HandleCommand;
import dev.oddsentry.cli.findings.NoteCommand;
import dev.oddsentry.cli.findings.SnoozeCommand;
import dev.oddsentry.cli.findings.TakeCommand;
import dev.oddsentry.cli.mail.BlockedCommand;
import dev.oddsentry.cli.mail.HoldMailCommand;
import dev.oddsentry.cli.mail.LanguagesCommand;
import dev.oddsentry.cli.mail.MessageCommand;
import dev.oddsentry.cli.mail.OutboxCommand;
import dev.oddsentry.cli.mail.ReaderChoicesCommand;
import dev.oddsentry.cli.mail.RecipientsCommand;
import dev.oddsentry.cli.mail.RoundUpCommand;
import dev.oddsentry.cli.mail.RoundUpsCommand;
import dev.oddsentry.cli.mail.SendOpenCommand;
import dev.oddsentry.cli.mail.UnsubscribedCommand;
import dev.oddsentry.cli.rules.ActivateCommand;
import dev.oddsentry.cli.rules.BulkCommand;
import dev.oddsentry.cli.rules.CopyCommand;
import dev.oddsentry.cli.rules.DiffCommand;
import dev.oddsentry.cli.rules.DraftCommand;
import dev.oddsentry.cli.rules.ImportThresholdCommand;
import dev.oddsentry.cli.rules.NewCommand;
import dev.oddsentry.cli.rules.PauseCommand;
import dev.oddsentry.cli.rules.PullCommand;
import dev.oddsentry.cli.rules.PushCommand;
import dev.oddsentry.cli.rules.RevisionsCommand;
import dev.oddsentry.cli.rules.RulesCommand;
import dev.oddsentry.cli.rules.SchemaCommand;
import dev.oddsentry.cli.rules.SetFilePasswordCommand;
import dev.oddsentry.cli.rules.SetThresholdCommand;
import dev.oddsentry.cli.rules.ThresholdsCommand;
import dev.oddsentry.cli.signon.ProvidersCommand;
import dev.oddsentry.cli.signon.SaveProviderCommand;
import dev.oddsentry.cli.start.CompletionCommand;
import dev.oddsentry.cli.start.CreateTokenCommand;
import dev.oddsentry.cli.start.DoctorCommand;
import dev.oddsentry.cli.start.LoginCommand;
import dev.oddsentry.cli.start.LogoutCommand;
import dev.oddsentry.cli.start.PasswordCommand;
import dev.oddsentry.cli.start.RevokeTokenCommand;
import dev.oddsentry.cli.start.SessionsCommand;
import dev.oddsentry.cli.start.StatusCommand;
import dev.oddsentry.cli.start.TokensCommand;
import dev.oddsentry.cli.trying.BackTestCommand;
import dev.oddsentry.cli.trying.ExtractCommand;
import dev.oddsentry.cli.trying.MeasurementsCommand;
import dev.oddsentry.cli.trying.PreviewCommand;
import dev.oddsentry.cli.trying.PreviewMailCommand;
import dev.oddsentry.cli.trying.TryCommand;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The commands: their names in groups, and each by its name. */
final class Commands {
    /** In the order in which people work. */
    static final Map<String, List<String>> GROUPS = groups();

    private Commands() {}

    static List<String> names() {
        return GROUPS.values().stream().flatMap(List::stream).toList();
    }

    private static Map<String, List<String>> groups() {
        var groups = new LinkedHashMap<String, List<String>>();
        groups.put(
                "Get started",
                List.of(
                        "login",
                        "logout",
                        "password",
                        "sessions",
                        "tokens",
                        "create-token",
                        "revoke-token",
                        "status",
                        "doctor",
                        "completion",
                        "help"));
        groups.put("Read data", List.of("sources", "test-source", "queries", "run-query", "query-runs"));
        groups.put(
                "Write rules",
                List.of(
                        "rules",
                        "new",
                        "copy",
                        "draft",
                        "revisions",
                        "activate",
                        "pause",
                        "bulk",
                        "set-file-password",
                        "thresholds",
                        "set-threshold",
                        "import-threshold",
                        "schema",
                        "pull",
                        "diff",
                        "push",
                        "retire",
                        "restore",
                        "archive",
                        "remove"));
        groups.put(
                "Try, send nothing", List.of("try", "preview", "backtest", "measurements", "extract", "preview-mail"));
        groups.put(
                "Run checks",
                List.of(
                        "check",
                        "checks",
                        "statement",
                        "week",
                        "approve",
                        "discard",
                        "stop",
                        "trigger",
                        "dates",
                        "calendars",
                        "import-calendar",
                        "feed"));
        groups.put(
                "Handle findings",
                List.of(
                        "findings",
                        "all-findings",
                        "findings-over-time",
                        "explain",
                        "take",
                        "snooze",
                        "accept",
                        "note",
                        "handle",
                        "export"));
        groups.put(
                "Manage mail",
                List.of(
                        "outbox",
                        "message",
                        "hold-mail",
                        "recipients",
                        "send-open",
                        "unsubscribed",
                        "reader-choices",
                        "blocked",
                        "languages",
                        "round-ups",
                        "round-up"));
        groups.put(
                "Administer",
                List.of(
                        "save-source",
                        "test-mail",
                        "people",
                        "person",
                        "add-person",
                        "change-person",
                        "teams",
                        "team",
                        "access",
                        "save-team",
                        "rename-team",
                        "hand-over",
                        "remove-team",
                        "providers",
                        "save-provider",
                        "audit"));
        return groups;
    }

    /**
     * A switch, so that the classes of other commands are not even loaded.
     *
     * @param all for the command that describes the others
     */
    static Object of(String name, GroupedCommands all) {
        return switch (name) {
            case "help" -> new HelpCommand(all);
            case "login" -> new LoginCommand();
            case "logout" -> new LogoutCommand();
            case "password" -> new PasswordCommand();
            case "sessions" -> new SessionsCommand();
            case "tokens" -> new TokensCommand();
            case "create-token" -> new CreateTokenCommand();
            case "revoke-token" -> new RevokeTokenCommand();
            case "status" -> new StatusCommand();
            case "doctor" -> new DoctorCommand();
            case "completion" -> new CompletionCommand();
            case "sources" -> new SourcesCommand();
            case "test-source" -> new TestSourceCommand();
            case "queries" -> new QueriesCommand();
            case "run-query" -> new RunQueryCommand();
            case "query-runs" -> new QueryRunsCommand();
            case "rules" -> new RulesCommand();
            case "new" -> new NewCommand();
            case "copy" -> new CopyCommand();
            case "draft" -> new DraftCommand();
            case "revisions" -> new RevisionsCommand();
            case "activate" -> new ActivateCommand();
            case "pause" -> new PauseCommand();
            case "bulk" -> new BulkCommand();
            case "set-file-password" -> new SetFilePasswordCommand();
            case "thresholds" -> new ThresholdsCommand();
            case "set-threshold" -> new SetThresholdCommand();
            case "import-threshold" -> new ImportThresholdCommand();
            case "schema" -> new SchemaCommand();
            case "pull" -> new PullCommand();
            case "diff" -> new DiffCommand();
            case "push" -> new PushCommand();
            case "try" -> new TryCommand();
            case "preview" -> new PreviewCommand();
            case "backtest" -> new BackTestCommand();
            case "measurements" -> new MeasurementsCommand();
            case "extract" -> new ExtractCommand();
            case "preview-mail" -> new PreviewMailCommand();
            case "check" -> new CheckCommand();
            case "checks" -> new ChecksCommand();
            case "statement" -> new StatementCommand();
            case "week" -> new WeekCommand();
            case "approve" -> new ApproveCommand();
            case "discard" -> new DiscardCommand();
            case "stop" -> new StopCommand();
            case "trigger" -> new TriggerCommand();
            case "dates" -> new DatesCommand();
            case "calendars" -> new CalendarsCommand();
            case "import-calendar" -> new ImportCalendarCommand();
            case "feed" -> new FeedCommand();
            case "findings" -> new FindingsCommand();
            case "all-findings" -> new AllFindingsCommand();
            case "findings-over-time" -> new FindingsOverTimeCommand();
            case "handle" -> new HandleCommand();
            case "explain" -> new ExplainCommand();
            case "take" -> new TakeCommand();
            case "note" -> new NoteCommand();
            case "snooze" -> new SnoozeCommand();
            case "accept" -> new AcceptCommand();
            case "export" -> new ExportCommand();
            case "outbox" -> new OutboxCommand();
            case "message" -> new MessageCommand();
            case "hold-mail" -> new HoldMailCommand();
            case "recipients" -> new RecipientsCommand();
            case "send-open" -> new SendOpenCommand();
            case "unsubscribed" -> new UnsubscribedCommand();
            case "reader-choices" -> new ReaderChoicesCommand();
            case "blocked" -> new BlockedCommand();
            case "languages" -> new LanguagesCommand();
            case "round-ups" -> new RoundUpsCommand();
            case "round-up" -> new RoundUpCommand();
            case "save-source" -> new SaveSourceCommand();
            case "test-mail" -> new TestMailCommand();
            case "people" -> new PeopleCommand();
            case "add-person" -> new AddPersonCommand();
            case "change-person" -> new ChangePersonCommand();
            case "person" -> new PersonCommand();
            case "access" -> new AccessCommand();
            case "providers" -> new ProvidersCommand();
            case "save-provider" -> new SaveProviderCommand();
            case "audit" -> new AuditCommand();
            case "teams" -> new TeamsCommand();
            case "save-team" -> new SaveTeamCommand();
            case "team" -> new TeamCommand();
            case "rename-team" -> new RenameTeamCommand();
            case "hand-over" -> new HandOverCommand();
            case "remove-team" -> new RemoveTeamCommand();
            case "retire" -> new RetireCommand();
            case "restore" -> new RestoreCommand();
            case "archive" -> new ArchiveCommand();
            case "remove" -> new RemoveCommand();
            default -> throw new IllegalStateException("no command " + name);
        };
    }
}
