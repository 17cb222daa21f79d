package dev.oddsentry.service.api.archive;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.retirement.UserEstate;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What depends on users: seen, and handed over. */
@RestController
@RequestMapping(path = "/api/people/{login}", produces = "application/json")
class UserEstateController {
    private final UserEstate estate;

    UserEstateController(UserEstate estate) {
        this.estate = estate;
    }

    @GetMapping("/belongings")
    UserEstate.UserBelongings getUserBelongings(@PathVariable String login) {
        return estate.of(login);
    }

    /** @param to the log-in name of who takes it */
    record HandOverUserBody(
            @NotBlank @Size(max = 60) String to,
            @Nullable @Size(max = 500) String reason) {}

    @PostMapping("/hand-over")
    UserEstate.HandedOver handOverUser(
            @AuthenticationPrincipal Person by, @PathVariable String login, @Valid @RequestBody HandOverUserBody body) {
        return estate.handOver(by, login, body.to(), body.reason() == null ? "" : body.reason());
    }
}
