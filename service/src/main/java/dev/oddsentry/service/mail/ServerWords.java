package dev.oddsentry.service.mail;

import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** What a mail system said, as one line that can be stored and shown: nothing invisible in it, and no longer than a person reads. */
public final class ServerWords {
    private static final int LONGEST = 1000;
    /** The enhanced code (RFC 3463) after the code of a reply, or alone. */
    private static final Pattern ENHANCED =
            Pattern.compile("(?:^|\\b[45]\\d\\d[ -])\\s*([245]\\.\\d{1,3}\\.\\d{1,3})\\b");
    /** The address is wrong, or is not used any more; 5.1.7 and 5.1.8 are of the sender's address. */
    private static final Pattern OF_THE_ADDRESS = Pattern.compile("5\\.1\\.([0-6]|9|10)|5\\.2\\.1");
    /** The message is too large for the system or the mailbox, and another might not be. */
    private static final Pattern OF_ITS_SIZE = Pattern.compile("[45]\\.(3\\.4|2\\.3)");

    private ServerWords() {}

    public static String line(@Nullable String text) {
        if (text == null) return "";
        String line = text.replaceAll("[\\p{Cntrl}\\s]+", " ").strip();
        return line.length() <= LONGEST ? line : line.substring(0, LONGEST) + "…";
    }

    static String line(Exception e) {
        return line(e.getMessage());
    }

    /** The enhanced code of a reply or a status; empty if there is none. */
    private static String enhanced(String words) {
        var found = ENHANCED.matcher(words);
        return found.find() ? found.group(1) : "";
    }

    /** Whether it is the address that is wrong, so that no other message would arrive there either. */
    public static boolean isOfTheAddress(String words) {
        return OF_THE_ADDRESS.matcher(enhanced(words)).matches();
    }

    /** Whether the message is too large: 552 without a code that says otherwise, or that code. */
    static boolean isOfItsSize(int code, String words) {
        String enhanced = enhanced(words);
        if (!enhanced.isEmpty())
            return code >= 400 && OF_ITS_SIZE.matcher(enhanced).matches();
        return code == 552;
    }
}
