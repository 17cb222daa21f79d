package dev.oddsentry.service.api.people;

import dev.oddsentry.service.access.AccessPolicy;
import dev.oddsentry.service.people.Person;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Who changes what a team owns. */
@RestController
@RequestMapping(path = "/api/access-policy", produces = "application/json")
class AccessPolicyController {
    private final AccessPolicy policy;

    AccessPolicyController(AccessPolicy policy) {
        this.policy = policy;
    }

    /** @param teamsDecide whether members of the owning team alone change what it owns; if not, every analyst does */
    record AccessPolicyView(@NotNull Boolean teamsDecide) {}

    @GetMapping
    AccessPolicyView getAccessPolicy() {
        return new AccessPolicyView(policy.teamsDecide());
    }

    @PutMapping
    AccessPolicyView saveAccessPolicy(@AuthenticationPrincipal Person by, @Valid @RequestBody AccessPolicyView wanted) {
        policy.save(by, wanted.teamsDecide());
        return getAccessPolicy();
    }
}
