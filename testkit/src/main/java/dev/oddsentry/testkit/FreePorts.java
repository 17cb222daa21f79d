package dev.oddsentry.testkit;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.util.concurrent.ThreadLocalRandom;

/**
 * Loopback ports that are free now and likely stay so: below those that the system gives to outgoing connections, any of which could
 * otherwise take the port while its server is down (even a client of that very server, by connecting to itself).
 */
public final class FreePorts {
    private static final int LOWEST = 20_000;
    private static final int HIGHEST = 32_000;

    private FreePorts() {}

    public static int next() {
        for (int tries = 0; tries < 1_000; tries++) {
            int port = ThreadLocalRandom.current().nextInt(LOWEST, HIGHEST);
            try (var socket = new ServerSocket(port, 1, InetAddress.getLoopbackAddress())) {
                return socket.getLocalPort();
            } catch (IOException taken) {
                // another one, then
            }
        }
        throw new IllegalStateException("no free port between " + LOWEST + " and " + HIGHEST);
    }
}
