package dev.oddsentry.service.web;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.channels.SocketChannel;
import org.apache.coyote.http11.Http11NioProtocol;
import org.apache.tomcat.util.net.NioEndpoint;

/** HTTP/1.1 as the server has it, with a limit on the connections that one address may keep open. One more is closed at once. */
public final class LimitedConnections extends Http11NioProtocol {

    /** Called by the server, by the class's name. */
    public LimitedConnections() {
        super(new Endpoint());
    }

    void setMaxConnectionsPerAddress(int max) {
        ((Endpoint) getEndpoint()).maxPerAddress = max;
    }

    private static final class Endpoint extends NioEndpoint {
        private volatile int maxPerAddress = Integer.MAX_VALUE;

        @Override
        protected boolean setSocketOptions(SocketChannel socket) {
            if (hasRoom(socket)) return super.setSocketOptions(socket);
            // The server closes only what it has a record of.
            destroySocket(socket);
            return false;
        }

        /** Counts for each new connection; their number is limited too, and no counter has to follow the end of each. */
        private boolean hasRoom(SocketChannel socket) {
            try {
                if (!(socket.getRemoteAddress() instanceof InetSocketAddress remote)) return true;
                String address = remote.getAddress().getHostAddress();
                return getConnections().stream()
                                .filter(each -> address.equals(each.getRemoteAddr()))
                                .count()
                        < maxPerAddress;
            } catch (IOException gone) {
                return false;
            }
        }
    }
}
