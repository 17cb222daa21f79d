package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.UserView;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "add-person",
        mixinStandardHelpOptions = true,
        description = {
            "Add a user (operators).",
            "The password is read from standard input, unless an invitation is sent."
        },
        footer = {"", "Example: odd add-person ines --name \"Ines Holm\" --email ines.holm@skerryline.example --invite"
        })
public final class AddPersonCommand extends ServiceCommand {
    @Parameters(paramLabel = "LOGIN", description = "Log-in name, in lower case.")
    @SuppressWarnings("NullAway.Init")
    String login;

    @Option(names = "--name", required = true, description = "Name shown to other users.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Option(names = "--email", required = true, description = "Email address.")
    @SuppressWarnings("NullAway.Init")
    String email;

    @Option(
            names = "--role",
            defaultValue = "analyst",
            description = "reader, analyst (the default), lead, operator or auditor.")
    @SuppressWarnings("NullAway.Init")
    UserRole role;

    @Option(names = "--team", paramLabel = "TEAM", description = "Team that the user is in; can be repeated.")
    List<String> teams = List.of();

    @Option(names = "--invite", description = "Send a message with a link that sets the password.")
    boolean invite;

    @Option(names = "--json", description = "The user as JSON.")
    boolean json;

    @Override
    public Integer call() throws IOException {
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("login", login);
        body.put("name", name);
        body.put("email", email);
        body.put("password", invite ? null : password());
        body.put("role", role.name());
        body.put("teams", teams);
        UserView user = api().post("/api/people", body, UserView.class);
        if (json) OutputOptions.printJson(out(), user);
        else
            out().println("Added " + user.name()
                    + (invite ? "; an invitation was sent to " + user.email() + "." : "."));
        return 0;
    }

    private static String password() throws IOException {
        var input = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
        return Objects.requireNonNullElse(input.readLine(), "");
    }
}
