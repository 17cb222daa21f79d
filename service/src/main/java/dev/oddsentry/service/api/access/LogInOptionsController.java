package dev.oddsentry.service.api.access;

import dev.oddsentry.service.access.AccessPolicy;
import dev.oddsentry.service.signon.IdentityProviders;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** How people log in here; the log-in page asks. */
@RestController
class LogInOptionsController {
    private final AccessPolicy policy;
    private final IdentityProviders providers;

    LogInOptionsController(AccessPolicy policy, IdentityProviders providers) {
        this.policy = policy;
        this.providers = providers;
    }

    /** @param name in the address that leads there, {@code /sign-on/<name>} */
    record ProviderOption(String name, String title) {}

    /** @param passwords whether anybody logs in with a password; if not, the emergency operator alone does */
    record LogInOptions(boolean passwords, List<ProviderOption> providers) {}

    @GetMapping(path = "/api/log-in-options", produces = "application/json")
    LogInOptions getLogInOptions() {
        return new LogInOptions(
                policy.present().passwords(),
                providers.all().stream()
                        .filter(each -> each.details().active())
                        .map(each ->
                                new ProviderOption(each.name(), each.details().title()))
                        .toList());
    }
}
