package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.UserView;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;

@Command(
        name = "change-person",
        mixinStandardHelpOptions = true,
        description = {"Change, invite, disable or enable a user (operators).", "What is not given stays as it is."},
        footer = {"", "Example: odd change-person ines --role lead --add-team \"Traffic reporting\""})
public final class ChangePersonCommand extends ServiceCommand {
    @Parameters(paramLabel = "LOGIN", description = "Log-in name of the user.")
    @SuppressWarnings("NullAway.Init")
    String login;

    @Option(names = "--name", description = "Name shown to other users.")
    @Nullable
    String name;

    @Option(names = "--email", description = "Email address.")
    @Nullable
    String email;

    @Option(names = "--role", description = "reader, analyst, lead, operator or auditor.")
    @Nullable
    UserRole role;

    @Option(names = "--add-team", paramLabel = "TEAM", description = "Put the user in a team; can be repeated.")
    List<String> added = List.of();

    @Option(names = "--remove-team", paramLabel = "TEAM", description = "Take the user out of a team; can be repeated.")
    List<String> removed = List.of();

    @Option(names = "--invite", description = "Send a message with a link that sets the password.")
    boolean invite;

    @Option(names = "--disable", description = "End all sessions and tokens at once, and refuse to log the user in.")
    boolean disable;

    @Option(names = "--enable", description = "Let the user log in again.")
    boolean enable;

    @Option(names = "--json", description = "The user as JSON.")
    boolean json;

    @Override
    public Integer call() {
        if (disable && enable)
            throw new ParameterException(spec().commandLine(), "--disable and --enable exclude each other.");
        var before = user();
        String path = "/api/people/" + Api.part(before.login());
        if (changes()) api().put(path, body(before));
        if (enable) api().post(path + "/enable", null);
        if (disable) api().post(path + "/disable", null);
        if (invite) api().post(path + "/invitation", null);
        var after = user();
        if (json) OutputOptions.printJson(out(), after);
        else out().println(words(after));
        return 0;
    }

    private UserView user() {
        List<UserView> all = api().list("/api/people?disabled=true", UserView.class);
        return all.stream()
                .filter(each -> each.login().equalsIgnoreCase(login))
                .findFirst()
                .orElseThrow(() -> new ParameterException(spec().commandLine(), "There is no user \"" + login + "\"."));
    }

    private boolean changes() {
        return name != null || email != null || role != null || !added.isEmpty() || !removed.isEmpty();
    }

    private Map<String, Object> body(UserView before) {
        var teams = new ArrayList<>(before.teams());
        teams.removeAll(removed);
        added.stream().filter(team -> !teams.contains(team)).forEach(teams::add);
        return Map.of(
                "name", name == null ? before.name() : name,
                "email", email == null ? before.email() : email,
                "role", role == null ? before.role() : role.name(),
                "teams", teams);
    }

    private static String words(UserView user) {
        String teams = user.teams().isEmpty() ? "in no team" : "in " + String.join(", ", user.teams());
        return user.name() + ": " + Words.state(user.role()) + ", " + teams + (user.active() ? "." : ", disabled.");
    }
}
