package dev.oddsentry.cli.start;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.Login;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.contract.IssuedToken;
import dev.oddsentry.contract.Person;
import java.io.BufferedReader;
import java.io.Console;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

@Command(
        name = "login",
        mixinStandardHelpOptions = true,
        description = "Log in and store a token on this computer.",
        footer = {"", "Example: odd login --user ines", "Through an identity provider: odd login --browser"})
public final class LoginCommand implements Callable<Integer> {
    @Spec
    @SuppressWarnings("NullAway.Init")
    CommandSpec spec;

    @Option(names = "--url", paramLabel = "ADDRESS", description = "Address of the service.")
    @Nullable
    String url;

    @Option(names = "--user", paramLabel = "NAME", description = "Your log-in name. Default: you are asked.")
    @Nullable
    String user;

    @Option(names = "--password-stdin", description = "Read the password from standard input, for scripts.")
    boolean passwordFromInput;

    @Option(
            names = "--browser",
            description = "Log in through a browser, here or on another computer, without a password here.")
    boolean browser;

    @Option(names = "--json", description = "The user as JSON.")
    boolean json;

    @Override
    public Integer call() throws IOException {
        String address = Login.urlToLogInAt(url);
        var api = new Api(new Login(address, null));
        var issued = browser ? new BrowserLogIn(api, spec.commandLine().getOut()).run() : byPassword(api);
        var loggedIn = new Login(address, issued.token());
        loggedIn.store();
        var person = new Api(loggedIn).get("/api/session", Person.class);
        if (json) OutputOptions.printJson(spec.commandLine().getOut(), person);
        else spec.commandLine().getOut().println("Logged in at " + address + " as " + person.name() + ".");
        return 0;
    }

    private IssuedToken byPassword(Api api) throws IOException {
        String login = user == null ? ask("Log-in name: ") : user;
        return api.post(
                "/api/tokens",
                Map.of("login", login, "password", password(), "name", "command line"),
                IssuedToken.class);
    }

    private String ask(String prompt) {
        return Objects.requireNonNullElse(console().readLine(prompt), "");
    }

    private String password() throws IOException {
        if (passwordFromInput) {
            var input = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
            return Objects.requireNonNullElse(input.readLine(), "");
        }
        char[] typed = console().readPassword("Password: ");
        return typed == null ? "" : new String(typed);
    }

    private Console console() {
        Console console = System.console();
        if (console == null || !console.isTerminal()) {
            throw new ParameterException(
                    spec.commandLine(), "No terminal. Use --user NAME and --password-stdin, or --browser.");
        }
        return console;
    }
}
