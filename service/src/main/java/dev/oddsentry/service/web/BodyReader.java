package dev.oddsentry.service.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Reads the whole body of a request that was let in, within limits of size and time, before anybody works on it. A slow sender holds a virtual thread and a few
 * bytes, nothing else. Large bodies share a budget, since what is made of them in memory is many times their size.
 */
@Component
@Order(BodyReader.AFTER_SECURITY)
class BodyReader extends OncePerRequestFilter {
    static final int AFTER_SECURITY = 0;

    private static final int SMALL = 64 * 1024;
    private static final int WAIT_SECONDS = 10;

    private final WebLimits limits;
    private final ProblemWriter problems;
    private final Semaphore bytesHeld;

    BodyReader(WebLimits limits, ProblemWriter problems) {
        this.limits = limits;
        this.problems = problems;
        this.bytesHeld = new Semaphore((int) limits.maxBodiesHeld().toBytes(), true);
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return request.getContentLengthLong() <= 0 && request.getHeader(HttpHeaders.TRANSFER_ENCODING) == null;
    }

    private static final class RefusedBody extends IOException {
        private final HttpStatus status;

        RefusedBody(HttpStatus status, String message) {
            super(message);
            this.status = status;
        }
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        byte[] body;
        int held = 0;
        try {
            try {
                held = hold(expected(request));
                body = read(request);
            } catch (RefusedBody refused) {
                response.setHeader(HttpHeaders.CONNECTION, "close");
                problems.write(response, refused.status, String.valueOf(refused.getMessage()));
                return;
            }
            chain.doFilter(
                    isForm(request) ? new FormRequest(new WithBody(request, body), body) : new WithBody(request, body),
                    response);
        } finally {
            bytesHeld.release(held);
        }
    }

    private static boolean isForm(HttpServletRequest request) {
        String type = request.getContentType();
        return type != null && MediaType.parseMediaType(type).isCompatibleWith(MediaType.APPLICATION_FORM_URLENCODED);
    }

    private long limit() {
        return (isStranger() ? limits.maxBodyOfStranger() : limits.maxBody()).toBytes();
    }

    /** What the body may take, before any of it is read: as much as is allowed if its length is not told. */
    private int expected(HttpServletRequest request) throws RefusedBody {
        long told = request.getContentLengthLong();
        long limit = limit();
        if (told > limit) throw tooLarge(limit);
        return (int) (told < 0 ? limit : told);
    }

    private byte[] read(HttpServletRequest request) throws IOException {
        long limit = limit();
        long end = System.nanoTime() + limits.bodyWithin().toNanos();
        var body = new ByteArrayOutputStream();
        var buffer = new byte[8192];
        var in = request.getInputStream();
        try {
            for (int count = in.read(buffer); count >= 0; count = in.read(buffer)) {
                body.write(buffer, 0, count);
                if (body.size() > limit) throw tooLarge(limit);
                if (System.nanoTime() > end) throw tooSlow();
            }
        } catch (SocketTimeoutException idle) {
            throw tooSlow();
        } catch (RefusedBody refused) {
            throw refused;
        } catch (IOException broken) {
            throw new RefusedBody(HttpStatus.BAD_REQUEST, "The request's body ended early or is malformed.");
        }
        return body.toByteArray();
    }

    private static RefusedBody tooLarge(long limit) {
        return new RefusedBody(HttpStatus.CONTENT_TOO_LARGE, RequestGate.tooLarge(limit));
    }

    private RefusedBody tooSlow() {
        return new RefusedBody(
                HttpStatus.REQUEST_TIMEOUT,
                "The request's body did not arrive within "
                        + limits.bodyWithin().toSeconds() + " seconds.");
    }

    private static boolean isStranger() {
        var authentication = SecurityContextHolder.getContext().getAuthentication();
        return authentication == null
                || !authentication.isAuthenticated()
                || "anonymousUser".equals(authentication.getName());
    }

    /** @return the bytes that were taken from the budget */
    private int hold(int bytes) throws RefusedBody {
        if (bytes <= SMALL) return 0;
        try {
            if (bytesHeld.tryAcquire(bytes, WAIT_SECONDS, TimeUnit.SECONDS)) return bytes;
        } catch (InterruptedException stopping) {
            Thread.currentThread().interrupt();
        }
        throw new RefusedBody(
                HttpStatus.SERVICE_UNAVAILABLE,
                "The service is working on other large requests. Try again in a minute.");
    }

    private static final class WithBody extends HttpServletRequestWrapper {
        private final byte[] body;

        WithBody(HttpServletRequest request, byte[] body) {
            super(request);
            this.body = body;
        }

        @Override
        public ServletInputStream getInputStream() {
            return new Bytes(body);
        }

        @Override
        public BufferedReader getReader() {
            return new BufferedReader(new InputStreamReader(getInputStream(), StandardCharsets.UTF_8));
        }
    }

    private static final class Bytes extends ServletInputStream {
        private final ByteArrayInputStream in;

        Bytes(byte[] body) {
            this.in = new ByteArrayInputStream(body);
        }

        @Override
        public int read() {
            return in.read();
        }

        @Override
        public int read(byte[] into, int from, int length) {
            return in.read(into, from, length);
        }

        @Override
        public boolean isFinished() {
            return in.available() == 0;
        }

        @Override
        public boolean isReady() {
            return true;
        }

        @Override
        public void setReadListener(ReadListener listener) {
            throw new IllegalStateException("the body has been read already");
        }
    }
}
