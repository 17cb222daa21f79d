package dev.oddsentry.service;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;

/**
 * Two mail servers of Debian's exim4 package on loopback: the first wants TLS and a log-in and relays to the second, which stores what it gets.
 * Their certificate is of an authority made for the test.
 */
public final class DebianMailServer implements AutoCloseable {
    public static final String USER = "odd";
    public static final String PASSWORD = "let-me-in";

    private final Path folder;
    private final int port = freePort();
    private final List<Process> processes = new ArrayList<>();

    /** @param folder that others may look into: the server runs as a user of its own */
    public DebianMailServer(Path folder) throws IOException, InterruptedException {
        this.folder = folder;
        int store = freePort();
        for (String part : List.of("relay/spool", "relay/log", "store/spool", "store/log", "mail"))
            Files.createDirectories(folder.resolve(part));
        certificate();
        Files.writeString(folder.resolve("relay.conf"), relay(store));
        Files.writeString(folder.resolve("store.conf"), store());
        run("chmod", "-R", "a+rX", folder.toString());
        if (isRoot()) {
            for (String own : List.of("relay", "store", "mail", "key.pem"))
                run("chown", "-R", "Debian-exim", folder.resolve(own).toString());
        }
        start("store", store);
        start("relay", port);
    }

    public int port() {
        return port;
    }

    public Path authority() {
        return folder.resolve("ca.pem");
    }

    /** The sources of the messages that arrived. */
    public List<String> stored() throws IOException {
        Path arrived = folder.resolve("mail/all/new");
        if (!Files.isDirectory(arrived)) return List.of();
        var messages = new ArrayList<String>();
        try (var files = Files.list(arrived)) {
            for (Path file : files.toList()) messages.add(Files.readString(file));
        }
        return messages;
    }

    private static boolean isRoot() {
        return "root".equals(System.getProperty("user.name"));
    }

    private String common(String name, String certificates) {
        String user = isRoot() ? "Debian-exim" : System.getProperty("user.name");
        return """
                primary_hostname = localhost
                exim_user = %2$s
                exim_group = %2$s
                spool_directory = %1$s/%3$s/spool
                log_file_path = %1$s/%3$s/log/%%slog
                local_interfaces = 127.0.0.1
                %4$s
                acl_smtp_rcpt = rcpt
                acl_smtp_data = data
                """.formatted(folder, user, name, certificates);
    }

    private String relay(int store) {
        String certificates = "tls_advertise_hosts = *\ntls_certificate = %1$s/cert.pem\ntls_privatekey = %1$s/key.pem"
                .formatted(folder);
        return common("relay", certificates) + """
                begin acl
                rcpt:
                  accept authenticated = *
                  deny message = log in first
                data:
                  accept
                begin routers
                onward:
                  driver = manualroute
                  route_list = * 127.0.0.1 byname
                  self = send
                  transport = onward
                begin transports
                onward:
                  driver = smtp
                  port = %d
                  hosts_avoid_tls = *
                  allow_localhost
                begin authenticators
                plain:
                  driver = plaintext
                  public_name = PLAIN
                  server_prompts = :
                  server_condition = ${if and{{eq{$auth2}{%s}}{eq{$auth3}{%s}}}}
                  server_set_id = $auth2
                  server_advertise_condition = ${if def:tls_cipher}
                """.formatted(store, USER, PASSWORD);
    }

    private String store() {
        return common("store", "tls_advertise_hosts =") + """
                begin acl
                rcpt:
                  accept
                data:
                  accept
                begin routers
                here:
                  driver = accept
                  transport = file
                begin transports
                file:
                  driver = appendfile
                  directory = %s/mail/all
                  maildir_format
                  create_directory
                  directory_mode = 0755
                  mode = 0644
                """.formatted(folder);
    }

    private void certificate() throws IOException, InterruptedException {
        openssl("req -x509 -newkey rsa:2048 -nodes -keyout ca.key -out ca.pem -days 2 -subj /CN=authority-of-the-test");
        openssl("req -newkey rsa:2048 -nodes -keyout key.pem -out request.pem -subj /CN=localhost");
        Files.writeString(folder.resolve("names"), "subjectAltName=DNS:localhost");
        openssl(
                "x509 -req -in request.pem -CA ca.pem -CAkey ca.key -CAcreateserial -out cert.pem -days 2 -extfile names");
    }

    private void openssl(String arguments) throws IOException, InterruptedException {
        var command = new ArrayList<>(List.of("openssl"));
        command.addAll(List.of(arguments.split(" ")));
        run(command.toArray(String[]::new));
    }

    private void run(String... command) throws IOException, InterruptedException {
        var process = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        String said = new String(process.getInputStream().readAllBytes());
        if (process.waitFor() != 0) throw new IOException(String.join(" ", command) + ": " + said);
    }

    private void start(String name, int at) throws IOException {
        processes.add(new ProcessBuilder(
                        "/usr/sbin/exim4",
                        "-C",
                        folder.resolve(name + ".conf").toString(),
                        "-bdf",
                        "-q10s",
                        "-oX",
                        String.valueOf(at),
                        "-oP",
                        folder.resolve(name + "/pid").toString())
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve(name + ".out").toFile())
                .start());
        RunningService.await("the mail server " + name, Duration.ofSeconds(20), () -> answers(at));
    }

    private static boolean answers(int port) {
        try (var socket = new Socket("127.0.0.1", port)) {
            return socket.isConnected();
        } catch (IOException notYet) {
            return false;
        }
    }

    private static int freePort() {
        try (var socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    @Override
    public void close() {
        processes.forEach(Process::destroy);
    }
}
