package dev.oddsentry.service.api.people;

import dev.oddsentry.service.people.TeamSignature.Logo;
import dev.oddsentry.service.web.RefusedException;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Locale;
import javax.imageio.ImageIO;
import org.jspecify.annotations.Nullable;

/** A picture as it was sent, which goes with every message of a team. */
final class TeamLogo {
    private static final int MOST_BYTES = 100_000;
    private static final int MOST_PIXELS = 2_000;

    private TeamLogo() {}

    /** @throws RefusedException if it is too large, or neither PNG nor JPEG whatever it is called */
    static Logo of(byte[] picture) {
        if (picture.length > MOST_BYTES)
            throw RefusedException.invalid("The logo has " + (picture.length + 999) / 1000 + " kB; max "
                    + MOST_BYTES / 1000 + " kB, since it goes with every message.");
        String type = typeOf(picture);
        if (type == null) throw RefusedException.invalid("The logo is neither a PNG nor a JPEG picture.");
        return new Logo(picture, type);
    }

    private static @Nullable String typeOf(byte[] picture) {
        try (var input = ImageIO.createImageInputStream(new ByteArrayInputStream(picture))) {
            var readers = ImageIO.getImageReaders(input);
            if (!readers.hasNext()) return null;
            var reader = readers.next();
            reader.setInput(input);
            int wide = reader.getWidth(0);
            int high = reader.getHeight(0);
            if (wide > MOST_PIXELS || high > MOST_PIXELS)
                throw RefusedException.invalid("The logo is " + wide + " × " + high + " pixels; max " + MOST_PIXELS
                        + " × " + MOST_PIXELS + ".");
            String format = reader.getFormatName().toLowerCase(Locale.ROOT);
            return format.equals("png") ? "image/png" : format.equals("jpeg") ? "image/jpeg" : null;
        } catch (IOException | IllegalArgumentException unreadable) {
            return null;
        }
    }
}
