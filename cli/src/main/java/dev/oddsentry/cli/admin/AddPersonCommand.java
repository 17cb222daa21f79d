package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.AccessPolicyView;
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
            "The password is read from standard input, unless an invitation is sent or it is a service account."
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

    @Option(names = "--email", description = "Email address; a service account has none.")
    @Nullable
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

    @Option(
            names = "--service",
            description = "A service account: a program, which logs in with tokens alone. See odd create-token --user.")
    boolean service;

    @Option(names = "--json", description = "The user as JSON.")
    boolean json;

    @Override
    public Integer call() throws IOException {
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("login", login);
        body.put("name", name);
        body.put("email", email == null ? "" : email);
        body.put("service", service);
        body.put("password", invite || service ? null : password());
        body.put("role", role.name());
        body.put("teams", teams);
        UserView user = api().post("/api/people", body, UserView.class);
        if (json) OutputOptions.printJson(out(), user);
        else
            out().println("Added " + user.name()
                    + (invite && sendsInvitations() ? "; an invitation was sent to " + user.email() + "." : "."));
        return 0;
    }

    /** Where passwords are off there is nothing to invite to. */
    private boolean sendsInvitations() {
        return api().get("/api/access-policy", AccessPolicyView.class).passwords();
    }

    private static String password() throws IOException {
        var input = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
        return Objects.requireNonNullElse(input.readLine(), "");
    }
}
