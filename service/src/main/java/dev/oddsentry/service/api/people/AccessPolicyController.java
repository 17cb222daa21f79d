package dev.oddsentry.service.api.people;

import dev.oddsentry.service.access.AccessPolicy;
import dev.oddsentry.service.access.AccessPolicy.AccessPolicyView;
import dev.oddsentry.service.people.Person;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Who changes what a team owns, and who logs in with a password. */
@RestController
@RequestMapping(path = "/api/access-policy", produces = "application/json")
class AccessPolicyController {
    private final AccessPolicy policy;

    AccessPolicyController(AccessPolicy policy) {
        this.policy = policy;
    }

    /**
     * @param teamsDecide whether members of the owning team alone change what it owns; if not, every analyst does
     * @param passwords whether people log in with passwords of this service; null to leave it
     * @param emergencyOperator the log-in name of the operator who can in any case; null to leave it, empty for none
     */
    record AccessPolicyBody(
            @NotNull Boolean teamsDecide,
            @Nullable Boolean passwords,
            @Nullable @Size(max = 60) String emergencyOperator) {}

    @GetMapping
    AccessPolicyView getAccessPolicy() {
        return policy.present();
    }

    @PutMapping
    AccessPolicyView saveAccessPolicy(@AuthenticationPrincipal Person by, @Valid @RequestBody AccessPolicyBody wanted) {
        var present = policy.present();
        policy.save(
                by,
                new AccessPolicyView(
                        wanted.teamsDecide(),
                        wanted.passwords() == null ? present.passwords() : wanted.passwords(),
                        emergencyOperator(wanted, present)));
        return getAccessPolicy();
    }

    private static @Nullable String emergencyOperator(AccessPolicyBody wanted, AccessPolicyView present) {
        if (wanted.emergencyOperator() == null) return present.emergencyOperator();
        return wanted.emergencyOperator().isBlank() ? null : wanted.emergencyOperator();
    }
}
