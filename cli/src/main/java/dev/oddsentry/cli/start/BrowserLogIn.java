package dev.oddsentry.cli.start;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.NotReachedException;
import dev.oddsentry.contract.DeviceLogInState;
import dev.oddsentry.contract.IssuedToken;
import dev.oddsentry.contract.StartedDevice;
import java.io.PrintWriter;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.Map;
import java.util.Objects;

/** Logs the command line in by somebody's browser, on this machine or another (RFC 8628): shows a code, and asks until it is allowed. */
final class BrowserLogIn {
    private final Api api;
    private final PrintWriter out;

    BrowserLogIn(Api api, PrintWriter out) {
        this.api = api;
        this.out = out;
    }

    /** @throws NotReachedException if the person refuses */
    IssuedToken run() {
        var started = api.post("/api/device-log-ins", Map.of("name", "odd on " + host()), StartedDevice.class);
        out.println(
                "Open " + started.verificationUri() + " in a browser and enter the code " + started.userCode() + ".");
        out.println("The code works for " + started.expiresIn() / 60 + " minutes. Waiting ...");
        out.flush();
        while (true) {
            var now = api.post(
                    "/api/device-log-ins/token", Map.of("deviceCode", started.deviceCode()), DeviceLogInState.class);
            switch (now.state()) {
                case "ALLOWED" -> {
                    return Objects.requireNonNull(now.token());
                }
                case "REFUSED" -> throw new NotReachedException("The log-in was refused in the browser.");
                default -> pause(started.interval());
            }
        }
    }

    private static String host() {
        try {
            return InetAddress.getLocalHost().getHostName();
        } catch (UnknownHostException nameless) {
            return "this computer";
        }
    }

    private static void pause(long seconds) {
        try {
            Thread.sleep(seconds * 1_000);
        } catch (InterruptedException stopping) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("stopped", stopping);
        }
    }
}
