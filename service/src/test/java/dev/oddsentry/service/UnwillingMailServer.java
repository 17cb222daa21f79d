package dev.oddsentry.service;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.CopyOnWriteArrayList;

/** An SMTP server on loopback that does what a test says: takes, refuses, is busy, hangs, or drops the line at the worst moment. */
public final class UnwillingMailServer implements AutoCloseable {
    /** What it does with a message. */
    public enum Mood {
        TAKE,
        REFUSE_RECIPIENTS,
        REFUSE_ADDRESSES_WITH_NO,
        BUSY,
        DROP_BEFORE_DATA,
        HANG,
        TAKE_AND_DROP_BEFORE_ANSWER,
        /** Says one byte of its greeting every so often, and never comes to its end. */
        DRIP,
        /** Refuses with words that have a NUL among them. */
        REFUSE_WITH_NUL,
        /** Refuses what is larger than {@link #LARGEST} after it was sent. */
        TOO_LARGE,
        /** Says so beforehand. */
        ANNOUNCE_SIZE,
        /** Closes before anything was said. */
        NOT_NOW,
        /** Refuses the message after its data. */
        REFUSE_MESSAGE,
        /** Cuts the line in the middle of the data. */
        DROP_WITHIN_DATA
    }

    public static final int LARGEST = 60_000;

    private final ServerSocket socket;
    private final List<String> taken = new CopyOnWriteArrayList<>();
    private volatile Mood mood;

    public UnwillingMailServer(Mood mood) throws IOException {
        this.mood = mood;
        this.socket = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        Thread.ofVirtual().start(this::accept);
    }

    public int port() {
        return socket.getLocalPort();
    }

    public void mood(Mood next) {
        mood = next;
    }

    /** The Message-IDs of what was taken, each as often as it was. */
    public List<String> taken() {
        return taken;
    }

    private void accept() {
        while (!socket.isClosed()) {
            try {
                Socket line = socket.accept();
                Thread.ofVirtual().start(() -> talk(line));
            } catch (IOException closed) {
                return;
            }
        }
    }

    private void talk(Socket line) {
        try (line) {
            var in = new BufferedReader(new InputStreamReader(line.getInputStream(), StandardCharsets.UTF_8));
            var out = line.getOutputStream();
            if (mood == Mood.DRIP) drip(out);
            if (mood == Mood.NOT_NOW) {
                say(out, "421 4.3.2 not now");
                return;
            }
            say(out, "220 unwilling.example ready");
            for (String said = in.readLine(); said != null; said = in.readLine()) {
                String verb = said.toUpperCase(Locale.ROOT);
                if (verb.startsWith("EHLO") && mood == Mood.ANNOUNCE_SIZE) {
                    say(out, "250-unwilling.example");
                    say(out, "250 SIZE " + LARGEST);
                } else if (verb.startsWith("RCPT")) say(out, recipient(said));
                else if (verb.equals("DATA")) {
                    if (mood == Mood.DROP_BEFORE_DATA) return;
                    if (mood == Mood.HANG) hang();
                    say(out, "354 go on");
                    if (mood == Mood.DROP_WITHIN_DATA) {
                        in.readLine();
                        return;
                    }
                    boolean refused = mood == Mood.REFUSE_MESSAGE;
                    boolean fits = take(in, refused);
                    if (refused) {
                        say(out, "554 5.7.1 refused");
                        continue;
                    }
                    if (!fits && (mood == Mood.TOO_LARGE || mood == Mood.ANNOUNCE_SIZE)) {
                        say(out, "552 5.3.4 message is too large");
                        continue;
                    }
                    if (mood == Mood.TAKE_AND_DROP_BEFORE_ANSWER) return;
                    say(out, "250 2.0.0 queued as T" + taken.size());
                } else if (verb.equals("QUIT")) {
                    say(out, "221 bye");
                    return;
                } else say(out, "250 ok");
            }
        } catch (IOException dropped) {
            // the other side has gone, which is what some tests want
        }
    }

    private String recipient(String said) {
        return switch (mood) {
            case REFUSE_RECIPIENTS -> "550 5.1.1 no such mailbox";
            case REFUSE_ADDRESSES_WITH_NO -> said.contains("<no") ? "550 5.1.1 no such mailbox" : "250 ok";
            case BUSY -> "450 4.2.1 mailbox busy";
            case REFUSE_WITH_NUL -> "550 5.7.1 not\0 here";
            default -> "250 ok";
        };
    }

    /**
     * Reads the data.
     *
     * @return whether it is small enough
     */
    private boolean take(BufferedReader in, boolean refused) throws IOException {
        long size = 0;
        String id = null;
        for (String line = in.readLine(); line != null && !line.equals("."); line = in.readLine()) {
            size += line.length() + 2;
            if (line.startsWith("Message-ID: ")) id = line.substring("Message-ID: ".length());
        }
        boolean fits = size <= LARGEST || (mood != Mood.TOO_LARGE && mood != Mood.ANNOUNCE_SIZE);
        if (id != null && fits && !refused) taken.add(id);
        return fits;
    }

    private static void drip(OutputStream out) throws IOException {
        while (true) {
            out.write('2');
            out.flush();
            try {
                Thread.sleep(300);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return;
            }
        }
    }

    /** Longer than anyone waits. */
    private static void hang() throws IOException {
        try {
            Thread.sleep(15_000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        throw new IOException("hung long enough");
    }

    private static void say(OutputStream out, String words) throws IOException {
        out.write((words + "\r\n").getBytes(StandardCharsets.UTF_8));
        out.flush();
    }

    @Override
    public void close() throws IOException {
        socket.close();
    }
}
