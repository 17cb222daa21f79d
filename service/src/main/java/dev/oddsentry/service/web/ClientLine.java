package dev.oddsentry.service.web;

import jakarta.servlet.ServletException;
import jakarta.servlet.ServletRequest;
import java.io.IOException;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.coyote.ActionCode;
import org.jspecify.annotations.Nullable;

/**
 * The connection of the client that sent a request. The server does not watch it while it works on the request, so work for a client that is gone would go on
 * to its end. Any thread may ask until the request is answered.
 */
public final class ClientLine {
    private static final String ATTRIBUTE = ClientLine.class.getName();

    private @Nullable Request request;

    private ClientLine(Request request) {
        this.request = request;
    }

    public static @Nullable ClientLine of(ServletRequest request) {
        return (ClientLine) request.getAttribute(ATTRIBUTE);
    }

    /** Whether the other end has closed the line. */
    public synchronized boolean isClosed() {
        if (request == null) return false;
        var coyote = request.getCoyoteRequest();
        // The server reads what has come, without waiting. It counts the end of the line as one byte, and another
        // request takes more.
        coyote.action(ActionCode.AVAILABLE, true);
        return coyote.getAvailable() == 1;
    }

    /** The request object serves others afterwards. */
    private synchronized void end() {
        request = null;
    }

    /** Gives each request its line. */
    static final class Valve extends ValveBase {
        Valve() {
            super(true);
        }

        @Override
        public void invoke(Request request, Response response) throws IOException, ServletException {
            var line = new ClientLine(request);
            request.setAttribute(ATTRIBUTE, line);
            try {
                getNext().invoke(request, response);
            } finally {
                line.end();
            }
        }
    }
}
