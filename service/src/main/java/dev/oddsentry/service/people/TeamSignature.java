package dev.oddsentry.service.people;

import dev.oddsentry.extracts.mail.Signature;
import org.jspecify.annotations.Nullable;

/**
 * How the messages of a team end.
 *
 * @param logo null for none
 */
public record TeamSignature(Signature words, @Nullable Logo logo) {
    public static final TeamSignature NONE = new TeamSignature(Signature.NONE, null);

    /** A picture, PNG or JPEG. */
    public record Logo(byte[] bytes, String mediaType) {}
}
