package dev.oddsentry.service.config;

import java.net.InetAddress;
import java.net.UnknownHostException;

/** This process among the nodes of one installation. */
public record Node(String name) {

    static Node of(Settings settings) {
        String given = settings.node();
        return new Node(
                given != null
                        ? given
                        : hostName() + "-" + ProcessHandle.current().pid());
    }

    private static String hostName() {
        try {
            return InetAddress.getLocalHost().getHostName();
        } catch (UnknownHostException unnamed) {
            return "node";
        }
    }
}
