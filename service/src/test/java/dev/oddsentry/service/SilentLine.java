package dev.oddsentry.service;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;

/** A line to a server that can fall silent, as behind a firewall that forgot it: nothing gets through any more, and nobody is told. */
public final class SilentLine implements AutoCloseable {
    private final ServerSocket socket;
    private final int to;
    private final List<Socket> open = new CopyOnWriteArrayList<>();
    private volatile boolean silent;

    public SilentLine(int to) throws IOException {
        this.to = to;
        this.socket = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        Thread.ofVirtual().start(this::accept);
    }

    public int port() {
        return socket.getLocalPort();
    }

    public void fallSilent(boolean now) {
        silent = now;
    }

    private void accept() {
        while (!socket.isClosed()) {
            try {
                Socket near = socket.accept();
                open.add(near);
                Socket far = new Socket(InetAddress.getLoopbackAddress(), to);
                open.add(far);
                Thread.ofVirtual().start(() -> carry(near, far));
                Thread.ofVirtual().start(() -> carry(far, near));
            } catch (IOException closed) {
                return;
            }
        }
    }

    private void carry(Socket from, Socket into) {
        var buffer = new byte[8192];
        boolean lost = false;
        try (from;
                into;
                InputStream in = from.getInputStream();
                OutputStream out = into.getOutputStream()) {
            for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
                lost |= silent;
                // Of a line that has lost something, nothing gets through later either.
                if (lost) continue;
                out.write(buffer, 0, read);
                out.flush();
            }
            while (lost && !socket.isClosed()) Thread.sleep(50);
        } catch (IOException ended) {
            // One side has gone.
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void close() throws IOException {
        socket.close();
        for (Socket each : open) each.close();
    }
}
