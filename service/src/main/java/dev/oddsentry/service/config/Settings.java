package dev.oddsentry.service.config;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Email;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.util.unit.DataSize;
import org.springframework.validation.annotation.Validated;

/**
 * What an operator sets, under {@code oddsentry.*}. Wrong settings stop the start.
 *
 * @param baseUrl where people reach the console; links in mail start with it
 * @param installation what this installation is called, where it has copies: on records that another was using, mail starts held
 * @param node this process's name among several; the host's name and process id if absent
 * @param key the key that encrypts stored passwords, 32 bytes in Base64; or {@code keyFile} names a file that holds it
 */
@ConfigurationProperties("oddsentry")
@Validated
public record Settings(
        @NotNull URI baseUrl,
        @Nullable String installation,
        @Nullable String node,
        @Nullable String key,
        @Nullable Path keyFile,
        @Valid @NotNull Mail mail,
        @Valid @DefaultValue Work work,
        @Valid @DefaultValue IncidentMails incidents,
        @Valid @DefaultValue Retention retention,
        @Valid @DefaultValue SignOn signOn,
        @Valid @DefaultValue FirstOperator firstOperator) {

    /**
     * @param timeLimit of each step of the conversation with the mail server
     * @param firstWait before a message is tried again; it doubles each time, up to half an hour
     * @param expireAfter how long a message is tried before it is given up
     * @param security of the line to each server
     * @param username null where the servers ask for no log-in
     * @param secret the password or token; or {@code secretFile} names a file that holds it, read for each connection
     * @param caFile certificates (PEM) of the authorities that are trusted; null for the machine's own
     * @param others servers that are tried in this order where the first is not reached, as {@code host:port}
     * @param allowedDomains mail goes to no others; empty for any
     * @param senders addresses, or domains as {@code @skerryline.example}, that rules may have as their sender besides {@code from}
     * @param testAddress where set, this installation is one for tries: all mail goes there and nowhere else, marked
     * @param lateAfter a message that is handed over later than this after its slot says in its first line of when it is
     * @param bounces where what comes back is read; null where it is not
     * @param mostAttached files of more bytes go packed; where that is not enough, they stay behind the link
     */
    public record Mail(
            @NotBlank String host,
            @Min(1) @Max(65535) int port,
            @NotBlank @Email String from,
            @DefaultValue("Odd Sentry") String fromName,
            @DefaultValue("20s") Duration timeLimit,
            @DefaultValue("15s") Duration firstWait,
            @DefaultValue("24h") Duration expireAfter,
            @DefaultValue("10MB") DataSize mostAttached,
            @DefaultValue("NONE") MailSecurity security,
            @Nullable String username,
            @DefaultValue("PASSWORD") MailLogIn logIn,
            @Nullable String secret,
            @Nullable Path secretFile,
            @Nullable Path caFile,
            @DefaultValue List<@Pattern(regexp = "[^:]+:\\d{1,5}") String> others,
            @DefaultValue List<String> allowedDomains,
            @DefaultValue List<@Pattern(regexp = "[^@]*@[^@]+") String> senders,
            @Nullable @Email String testAddress,
            @DefaultValue("1h") Duration lateAfter,
            @Valid @Nullable Bounces bounces,
            @Nullable @Pattern(regexp = HELO) String heloName) {
        private static final String HELO = "[A-Za-z0-9]([A-Za-z0-9.-]*[A-Za-z0-9])?|\\[[0-9A-Za-z:.]+\\]";

        /** Whether a rule's mail may be from the address. */
        public boolean allowsSender(String address) {
            String domain = address.substring(address.lastIndexOf('@'));
            return address.equalsIgnoreCase(from)
                    || senders.stream()
                            .anyMatch(each -> each.equalsIgnoreCase(address) || each.equalsIgnoreCase(domain));
        }

        /** Whether mail may go to the address, as far as its domain says. */
        public boolean allows(String address) {
            String domain = address.substring(address.lastIndexOf('@') + 1);
            return allowedDomains.isEmpty() || allowedDomains.stream().anyMatch(domain::equalsIgnoreCase);
        }
    }

    /**
     * The mailbox to which undeliverable mail comes back. It is read for delivery reports (RFC 3464) alone, and emptied.
     *
     * @param address the sender of envelopes; each has a signed token for message and recipient behind a plus sign
     * @param host of the IMAP server; null where the mailbox is read by something else
     * @param secret the password; or {@code secretFile} names a file that holds it
     * @param caFile as for the mail server
     */
    public record Bounces(
            @NotBlank @Email String address,
            @Nullable String host,
            @DefaultValue("143") @Min(1) @Max(65535) int port,
            @DefaultValue("NONE") MailSecurity security,
            @Nullable String username,
            @Nullable String secret,
            @Nullable Path secretFile,
            @Nullable Path caFile,
            @DefaultValue("INBOX") String folder,
            @DefaultValue("1m") Duration lookEvery) {}

    /** How the line to a mail server is encrypted. */
    public enum MailSecurity {
        NONE,
        /** Begins in the clear and must change to TLS before anything is said. */
        STARTTLS,
        TLS
    }

    /** What is given to a mail server that asks who we are. */
    public enum MailLogIn {
        PASSWORD,
        /** An access token of OAuth 2 (XOAUTH2). */
        TOKEN
    }

    /**
     * @param atOnce how many checks and other pieces of work run at once on a node
     * @param mailAtOnce how many messages are handed over at once by a node, beside those
     * @param heartbeat a node that misses four of these counts as dead, and its checks are taken over
     * @param stopWithin how long a node that is shut down waits for its checks
     */
    public record Work(
            @DefaultValue("16") @Min(1) int atOnce,
            @DefaultValue("8") @Min(1) int mailAtOnce,
            @DefaultValue("500ms") Duration polling,
            @DefaultValue("3s") Duration heartbeat,
            @DefaultValue("20s") Duration stopWithin) {}

    /**
     * How those who own failing rules hear of it.
     *
     * @param gather how long after the first failure the mail waits for others of the same cause
     */
    public record IncidentMails(
            @DefaultValue("20s") Duration lookEvery,
            @DefaultValue("1m") Duration gather) {}

    /**
     * How many days things are kept after they are over. What is open, marked, or still to be told is kept in any case.
     *
     * @param checks and the events of findings that they wrote
     * @param messages as they were sent
     * @param findings that have cleared, with their history
     * @param agedOut findings that a moving window left behind; never less than the rule's window and thirty days
     * @param traces that a finding was forgotten
     * @param points that were measured
     * @param longWork and answered occasions
     * @param audit who did what
     */
    public record Retention(
            @DefaultValue("400") @Min(1) int checks,
            @DefaultValue("400") @Min(1) int messages,
            @DefaultValue("400") @Min(1) int findings,
            @DefaultValue("400") @Min(1) int agedOut,
            @DefaultValue("365") @Min(1) int traces,
            @DefaultValue("1100") @Min(1) int points,
            @DefaultValue("30") @Min(1) int longWork,
            @DefaultValue("1100") @Min(1) int audit) {}

    /** @param confirmEvery how often identity providers are asked whether those they vouched for are still there */
    public record SignOn(@DefaultValue("15m") Duration confirmEvery) {}

    /** Made at the first start on an empty database, when a password is given. */
    public record FirstOperator(
            @DefaultValue("operator") String login,
            @DefaultValue("Operator") String name,
            @DefaultValue("operator@localhost") String email,
            @Nullable String password) {}
}
