package dev.oddsentry.service.mail;

import dev.oddsentry.service.ids.MessageId;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;

/** The mail server that messages are handed over to. */
public interface MailServer {

    /** The server's answer for one recipient. */
    sealed interface Reply {
        /** The server's own words, or ours where it had none. */
        String words();

        record Taken(String words) implements Reply {}

        /** For good: trying again will not help. */
        record Refused(String words) implements Reply {}

        /**
         * Not now: the server is away, busy or asks to try later.
         *
         * @param forEverybody whether it is the server that is away, so that there is no use in asking for others
         */
        record Delayed(String words, boolean forEverybody) implements Reply {}

        /** The line was lost after the data went out; the server may have taken it. */
        record Unsure(String words) implements Reply {}

        /** The message is larger than the server takes; a smaller one might go. */
        record TooLarge(String words) implements Reply {}
    }

    /** For how long there is no use in handing anything over, since each server is being left alone after it failed; zero if there is. */
    Duration closedFor();

    /** The largest message that the servers accept; empty until one has announced it. */
    OptionalLong largest();

    /**
     * Hands one message over to some of its recipients; answers for each of them. Never throws for what the server does.
     *
     * @param message its number, by which a report that comes back is known
     */
    Map<String, Reply> handOver(MessageId message, byte[] mime, List<String> to);
}
