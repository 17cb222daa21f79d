package dev.oddsentry.identity;

import java.util.Collection;
import java.util.List;
import java.util.Objects;
import org.springframework.boot.web.server.servlet.context.AnnotationConfigServletWebServerApplicationContext;

/** A whole identity provider on loopback, with users in memory: OpenID Connect with discovery, PKCE, refresh tokens and log-out. */
public final class IdentityProviderStandIn implements AutoCloseable {
    private final AnnotationConfigServletWebServerApplicationContext context;
    private final KnownUsers users;

    private IdentityProviderStandIn(AnnotationConfigServletWebServerApplicationContext context, KnownUsers users) {
        this.context = context;
        this.users = users;
    }

    /**
     * The program that people log in to.
     *
     * @param returnAddresses where they may be sent back to after a log-in
     * @param logOutAddress where after a log-out
     */
    public record Client(String id, String secret, List<String> returnAddresses, String logOutAddress) {}

    /**
     * @param port 0 for a free one
     * @throws org.springframework.boot.web.server.WebServerException if it is taken
     */
    public static IdentityProviderStandIn start(int port, Client client, Collection<KnownUser> users) {
        var known = new KnownUsers(users);
        var context = new AnnotationConfigServletWebServerApplicationContext();
        context.registerBean(Port.class, () -> new Port(port));
        context.registerBean(Client.class, () -> client);
        context.registerBean(KnownUsers.class, () -> known);
        context.register(ProviderServer.class, ProviderSecurity.class);
        context.refresh();
        return new IdentityProviderStandIn(context, known);
    }

    record Port(int number) {}

    /** What a client is told to look at. */
    public String issuer() {
        return "http://127.0.0.1:"
                + Objects.requireNonNull(context.getWebServer(), "closed").getPort();
    }

    /** Adds somebody, or changes what is said of them from the next log-in on. */
    public void put(KnownUser user) {
        users.put(user);
    }

    /** Nobody logs in as that user, and what was given out for them is refused. */
    public void remove(String login) {
        users.remove(login);
    }

    @Override
    public void close() {
        context.close();
    }
}
