package dev.oddsentry.service.mail;

import java.io.IOException;
import java.net.InetAddress;
import java.net.Socket;
import java.net.SocketException;
import javax.net.SocketFactory;

/** Sockets that send small packets at once. */
final class NoDelaySocketFactory extends SocketFactory {

    @Override
    public Socket createSocket() throws IOException {
        return withoutDelay(new Socket());
    }

    @Override
    public Socket createSocket(String host, int port) throws IOException {
        return withoutDelay(new Socket(host, port));
    }

    @Override
    public Socket createSocket(InetAddress host, int port) throws IOException {
        return withoutDelay(new Socket(host, port));
    }

    @Override
    public Socket createSocket(String host, int port, InetAddress localHost, int localPort) throws IOException {
        return withoutDelay(new Socket(host, port, localHost, localPort));
    }

    @Override
    public Socket createSocket(InetAddress host, int port, InetAddress localHost, int localPort) throws IOException {
        return withoutDelay(new Socket(host, port, localHost, localPort));
    }

    private static Socket withoutDelay(Socket socket) throws SocketException {
        socket.setTcpNoDelay(true);
        return socket;
    }
}
