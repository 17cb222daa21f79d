package dev.oddsentry.cli.common;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.Login;
import dev.oddsentry.cli.client.NotReachedException;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** Which service a command asks. */
final class ServiceOptions {
    @Option(
            names = "--url",
            paramLabel = "ADDRESS",
            description = "Address of the service. Default: ODD_URL, then where you logged in.")
    @Nullable
    String url;

    /** @throws NotReachedException if nobody is logged in */
    Api api() {
        var login = Login.current(url);
        if (login.token() == null || login.token().isEmpty()) {
            throw new NotReachedException("You are not logged in at " + login.url() + ". Log in with: odd login");
        }
        return new Api(login);
    }
}
