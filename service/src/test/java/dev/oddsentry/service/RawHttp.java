package dev.oddsentry.service;

import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Locale;

/** HTTP/1.1 as bytes, for requests that no well-behaved client would send. A new connection for each. */
public final class RawHttp {
    private static final Duration WAIT = Duration.ofSeconds(40);

    private final int port;

    public RawHttp(String baseUrl) {
        this.port = URI.create(baseUrl).getPort();
    }

    /** @param status 0 if the server closed the connection without an answer */
    public record Answer(int status, String contentType, String body, Duration took) {
        public boolean isProblem() {
            return contentType.startsWith("application/problem+json");
        }
    }

    public Socket open() throws IOException {
        var socket = new Socket(InetAddress.getLoopbackAddress(), port);
        socket.setSoTimeout((int) WAIT.toMillis());
        return socket;
    }

    public Answer send(String head, byte[] body) throws IOException {
        long began = System.nanoTime();
        try (var socket = open()) {
            var out = socket.getOutputStream();
            try {
                out.write(head.getBytes(StandardCharsets.UTF_8));
                out.write(body);
                out.flush();
            } catch (IOException closedEarly) {
                // It may have answered all the same.
            }
            return read(socket.getInputStream(), began);
        }
    }

    private static Answer read(InputStream in, long began) throws IOException {
        String contentType = "";
        long length = -1;
        boolean chunked = false;
        String first;
        try {
            first = line(in);
            if (first.isEmpty()) return new Answer(0, "", "", took(began));
            for (String header = line(in); !header.isEmpty(); header = line(in)) {
                String lower = header.toLowerCase(Locale.ROOT);
                String value = header.substring(header.indexOf(':') + 1).strip();
                if (lower.startsWith("content-type:")) contentType = value;
                if (lower.startsWith("content-length:")) length = Long.parseLong(value);
                if (lower.startsWith("transfer-encoding:")) chunked = true;
            }
        } catch (SocketTimeoutException hanging) {
            throw hanging;
        } catch (IOException reset) {
            return new Answer(0, "", "", took(began));
        }
        int status = Integer.parseInt(first.split(" ")[1]);
        boolean stream = contentType.startsWith("text/event-stream");
        String body = stream || status == 204 || status == 304
                ? ""
                : chunked
                        ? chunks(in)
                        : length < 0 ? "" : new String(in.readNBytes((int) length), StandardCharsets.UTF_8);
        return new Answer(status, contentType, body, took(began));
    }

    private static Duration took(long began) {
        return Duration.ofNanos(System.nanoTime() - began);
    }

    private static String chunks(InputStream in) throws IOException {
        var body = new ByteArrayOutputStream();
        for (int size = Integer.parseInt(line(in), 16); size > 0; size = Integer.parseInt(line(in), 16)) {
            body.write(in.readNBytes(size));
            line(in);
        }
        return body.toString(StandardCharsets.UTF_8);
    }

    private static String line(InputStream in) throws IOException {
        var line = new ByteArrayOutputStream();
        for (int b = in.read(); b != '\n'; b = in.read()) {
            if (b < 0) {
                if (line.size() == 0) return "";
                throw new EOFException();
            }
            if (b != '\r') line.write(b);
        }
        return line.toString(StandardCharsets.UTF_8);
    }
}
