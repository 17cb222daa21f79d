package dev.oddsentry.service.web;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/** Percent-encoded text as RFC 3986 has it, strictly. */
final class PercentEncoding {
    private PercentEncoding() {}

    /** @return empty if a {@code %} has no two hexadecimal digits, or the bytes are not UTF-8 */
    static Optional<String> decode(String encoded) {
        var bytes = new ByteArrayOutputStream(encoded.length());
        for (int i = 0; i < encoded.length(); i++) {
            char c = encoded.charAt(i);
            if (c != '%') {
                bytes.writeBytes(String.valueOf(c).getBytes(StandardCharsets.UTF_8));
                continue;
            }
            boolean twoFollow = i + 2 < encoded.length();
            int high = twoFollow ? Character.digit(encoded.charAt(i + 1), 16) : -1;
            int low = twoFollow ? Character.digit(encoded.charAt(i + 2), 16) : -1;
            if (high < 0 || low < 0) return Optional.empty();
            bytes.write(high << 4 | low);
            i += 2;
        }
        try {
            return Optional.of(StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(bytes.toByteArray()))
                    .toString());
        } catch (CharacterCodingException notUtf8) {
            return Optional.empty();
        }
    }
}
