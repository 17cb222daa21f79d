package dev.oddsentry.service.access;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.secrets.SecretBox;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.Optional;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.stereotype.Component;

/**
 * Recognises a browser from which a person has logged in before. The cookie proves nothing else. Guesses from elsewhere do not slow down log-ins from
 * such a browser.
 */
@Component
public class KnownDevices {
    private static final String COOKIE = "odd_known";
    private static final Duration LIFETIME = Duration.ofDays(180);

    private final SecretBox secrets;
    private final Clock clock;
    private final boolean secure;

    KnownDevices(SecretBox secrets, Clock clock, Settings settings) {
        this.secrets = secrets;
        this.clock = clock;
        this.secure = "https".equals(settings.baseUrl().getScheme());
    }

    public void remember(Person person, HttpServletResponse response) {
        long until = clock.instant().plus(LIFETIME).getEpochSecond();
        var cookie = ResponseCookie.from(COOKIE, until + "." + signature(person.login(), until))
                .httpOnly(true)
                .secure(secure)
                .sameSite("Strict")
                .path("/api/session")
                .maxAge(LIFETIME)
                .build();
        response.addHeader(HttpHeaders.SET_COOKIE, cookie.toString());
    }

    /** @return what stands for the device in place of the name; empty for one that is not known to the person of that login */
    public Optional<String> known(String login, HttpServletRequest request) {
        if (request.getCookies() == null) return Optional.empty();
        for (Cookie cookie : request.getCookies()) {
            if (cookie.getName().equals(COOKIE) && isOf(login, cookie.getValue()))
                return Optional.of(cookie.getValue());
        }
        return Optional.empty();
    }

    private boolean isOf(String login, String value) {
        if (!value.matches("\\d{1,12}\\.[A-Za-z0-9_-]{1,100}")) return false;
        long until = Long.parseLong(value.substring(0, value.indexOf('.')));
        byte[] expected = signature(login, until).getBytes(StandardCharsets.US_ASCII);
        byte[] given = value.substring(value.indexOf('.') + 1).getBytes(StandardCharsets.US_ASCII);
        return MessageDigest.isEqual(expected, given)
                && Instant.ofEpochSecond(until).isAfter(clock.instant());
    }

    private String signature(String login, long until) {
        return secrets.sign("known device|" + until + "|" + login.toLowerCase(Locale.ROOT));
    }
}
