package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.Person;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Objects;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "add-person",
        mixinStandardHelpOptions = true,
        description = {"Add a user (operators).", "The password is read from standard input."},
        footer = {
            "",
            "Example: odd add-person ines --name \"Ines Holm\" --email ines.holm@skerryline.example --role analyst"
        })
public final class AddPersonCommand extends ServiceCommand {
    enum Role {
        ANALYST,
        OPERATOR
    }

    @Parameters(paramLabel = "LOGIN", description = "Log-in name, in lower case.")
    @SuppressWarnings("NullAway.Init")
    String login;

    @Option(names = "--name", required = true, description = "Name shown to other users.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Option(names = "--email", required = true, description = "Email address.")
    @SuppressWarnings("NullAway.Init")
    String email;

    @Option(names = "--role", defaultValue = "analyst", description = "analyst (the default) or operator.")
    @SuppressWarnings("NullAway.Init")
    Role role;

    @Option(names = "--json", description = "The user as JSON.")
    boolean json;

    @Override
    public Integer call() throws IOException {
        var input = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
        String password = Objects.requireNonNullElse(input.readLine(), "");
        var body = Map.of("login", login, "name", name, "email", email, "password", password, "role", role.name());
        Person person = api().post("/api/people", body, Person.class);
        if (json) OutputOptions.printJson(out(), person);
        else out().println("Added " + person.name() + ".");
        return 0;
    }
}
