package dev.oddsentry.service.api.rules;

import dev.oddsentry.service.authoring.Saved;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Acts on many rules at once, and copies. */
@RestController
@RequestMapping(path = "/api", produces = "application/json")
class BulkActionController {
    private final BulkActions acts;

    BulkActionController(BulkActions acts) {
        this.acts = acts;
    }

    enum Kind {
        PAUSE,
        ACTIVATE,
        CHECK,
        HAND_OVER,
        RECIPIENTS
    }

    /**
     * @param owner the team that gets them, for HAND_OVER
     * @param add addresses or teams, for RECIPIENTS
     * @param remove the same
     */
    record BulkActionBody(
            @NotNull Kind action,
            @NotEmpty @Size(max = 5000) List<@NotBlank String> rules,
            @Nullable @Size(max = 200) String owner,
            @Nullable List<@NotBlank @Size(max = 320) String> add,
            @Nullable List<@NotBlank @Size(max = 320) String> remove,
            @Nullable @Size(max = 2000) String reason) {}

    /** @param apply absent for the list of what would be done, true to do it */
    @PostMapping("/bulk-actions")
    List<BulkActions.BulkActionResult> changeRules(
            @AuthenticationPrincipal Person by,
            @Valid @RequestBody BulkActionBody body,
            @RequestParam(defaultValue = "false") boolean apply) {
        return acts.act(by, body.rules(), actOf(body), body.reason() == null ? "" : body.reason(), apply);
    }

    private static BulkActions.Act actOf(BulkActionBody body) {
        return switch (body.action()) {
            case PAUSE -> new BulkActions.Act.Pause();
            case ACTIVATE -> new BulkActions.Act.Activate();
            case CHECK -> new BulkActions.Act.Check();
            case HAND_OVER -> {
                if (body.owner() == null || body.owner().isBlank())
                    throw RefusedException.invalid("owner: name the team that gets the rules.");
                yield new BulkActions.Act.HandOver(body.owner().strip());
            }
            case RECIPIENTS -> {
                var add = stripped(body.add());
                var remove = stripped(body.remove());
                if (add.isEmpty() && remove.isEmpty())
                    throw RefusedException.invalid("add, remove: name at least one address or team.");
                yield new BulkActions.Act.Recipients(add, remove);
            }
        };
    }

    private static List<String> stripped(@Nullable List<String> people) {
        return people == null ? List.of() : people.stream().map(String::strip).toList();
    }

    record CopyRuleBody(
            @NotBlank
            @Pattern(
                    regexp = "[a-z0-9][a-z0-9_-]{0,79}",
                    message = "lower-case letters, digits, hyphens and underscores")
            String name,

            @Nullable @Size(max = 200) String title) {}

    /** A draft that says the same, remembers nothing and tells nobody. */
    @PostMapping("/rules/{name}/copies")
    @ResponseStatus(HttpStatus.CREATED)
    Saved copyRule(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody CopyRuleBody body) {
        String title = body.title() == null || body.title().isBlank()
                ? body.name()
                : body.title().strip();
        return acts.copy(by, name, body.name(), title);
    }
}
