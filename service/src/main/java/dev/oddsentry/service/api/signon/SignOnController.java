package dev.oddsentry.service.api.signon;

import dev.oddsentry.service.access.ConsoleLogIn;
import dev.oddsentry.service.access.KnownDevices;
import dev.oddsentry.service.access.LogIns;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.signon.SignOnException;
import dev.oddsentry.service.signon.SignOns;
import dev.oddsentry.service.signon.SignedOn;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.net.URI;
import java.time.Clock;
import java.time.Duration;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseCookie;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.CookieValue;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.util.UriComponentsBuilder;

/** Sends a browser to an identity provider, and takes it back. Whatever fails is said on the log-in page. */
@RestController
class SignOnController {
    private static final Logger LOG = LoggerFactory.getLogger(SignOnController.class);
    private static final String COOKIE = "odd_sign_on";
    private static final Duration COOKIE_LIFETIME = Duration.ofHours(1);
    /** Of a provider that cannot be asked whether somebody is still there. */
    private static final Duration UNCONFIRMED_SESSION = Duration.ofHours(12);

    private final SignOns signOns;
    private final ConsoleLogIn console;
    private final KnownDevices devices;
    private final LogIns logIns;
    private final Clock clock;
    private final boolean secure;

    SignOnController(
            SignOns signOns,
            ConsoleLogIn console,
            KnownDevices devices,
            LogIns logIns,
            Clock clock,
            Settings settings) {
        this.signOns = signOns;
        this.console = console;
        this.devices = devices;
        this.logIns = logIns;
        this.clock = clock;
        this.secure = "https".equals(settings.baseUrl().getScheme());
    }

    @GetMapping("/sign-on/{provider}")
    ResponseEntity<Void> beginSignOn(
            @PathVariable String provider,
            @RequestParam(defaultValue = "/") String returnTo,
            @CookieValue(name = COOKIE, required = false) @Nullable String browser) {
        try {
            var departure = signOns.begin(provider, returnTo, browser);
            return to(departure.address())
                    .header(HttpHeaders.SET_COOKIE, cookie(departure.browser()))
                    .build();
        } catch (SignOnException refused) {
            return refusal(provider, refused);
        }
    }

    @GetMapping("/sign-on/{provider}/return")
    ResponseEntity<Void> finishSignOn(
            @PathVariable String provider,
            @RequestParam Map<String, String> said,
            @CookieValue(name = COOKIE, required = false) @Nullable String browser,
            HttpServletRequest request,
            HttpServletResponse response) {
        String from = request.getRemoteAddr();
        try {
            var arrival = signOns.finish(provider, said, browser);
            var person = arrival.person();
            logIns.succeeded(person, from + " by " + provider, AuditAct.LOG_IN);
            devices.remember(person, response);
            var end = arrival.confirmable() ? null : clock.instant().plus(UNCONFIRMED_SESSION);
            console.begin(person, request, response, end);
            request.getSession().setAttribute(SignedOn.IN_SESSION, arrival.signedOn());
            return to(URI.create(arrival.returnTo())).build();
        } catch (SignOnException refused) {
            // Anybody can ask for this page, so what no browser was sent out for is not written down.
            if (refused.refusal().isOfAnAttempt()) logIns.failed(provider + ": " + refused.getMessage(), from);
            return refusal(provider, refused);
        }
    }

    private static ResponseEntity<Void> refusal(String provider, SignOnException refused) {
        LOG.debug("A log-in by {} was refused: {}", provider, refused.getMessage());
        return to(UriComponentsBuilder.fromPath("/login")
                        .queryParam("refused", refused.refusal().name().toLowerCase(Locale.ROOT))
                        .build()
                        .toUri())
                .build();
    }

    private static ResponseEntity.BodyBuilder to(URI address) {
        return ResponseEntity.status(HttpStatus.FOUND).location(address).header(HttpHeaders.CACHE_CONTROL, "no-store");
    }

    /** It must come along when the provider's site sends the browser back, which a strict one would not. */
    private String cookie(String browser) {
        return ResponseCookie.from(COOKIE, browser)
                .httpOnly(true)
                .secure(secure)
                .sameSite("Lax")
                .path("/sign-on")
                .maxAge(COOKIE_LIFETIME)
                .build()
                .toString();
    }
}
