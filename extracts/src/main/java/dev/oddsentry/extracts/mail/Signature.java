package dev.oddsentry.extracts.mail;

/**
 * How the messages of a team end.
 *
 * @param team its name, in place of a picture that is not shown
 * @param text with line breaks; empty for none
 * @param hasLogo whether the part {@link #LOGO} has its picture
 */
public record Signature(String team, String text, boolean hasLogo) {
    public static final Signature NONE = new Signature("", "", false);
    /** The Content-ID of the picture. */
    public static final String LOGO = "logo";

    boolean isEmpty() {
        return text.isBlank() && !hasLogo;
    }
}
