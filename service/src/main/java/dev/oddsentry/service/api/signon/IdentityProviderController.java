package dev.oddsentry.service.api.signon;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import dev.oddsentry.service.signon.IdentityProvider;
import dev.oddsentry.service.signon.IdentityProviders;
import dev.oddsentry.service.signon.KnownBy;
import dev.oddsentry.service.signon.ProviderDetails;
import dev.oddsentry.service.signon.ProviderDetails.GroupLine;
import dev.oddsentry.service.signon.ProviderTrial;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.LinkedHashSet;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Identity providers, as operators set them up. A client secret goes in and never comes out. */
@RestController
@RequestMapping(path = "/api/identity-providers", produces = "application/json")
class IdentityProviderController {
    private static final String NAME = "[a-z0-9][a-z0-9-]{0,39}";

    private final IdentityProviders providers;
    private final ProviderTrial trial;

    IdentityProviderController(IdentityProviders providers, ProviderTrial trial) {
        this.providers = providers;
        this.trial = trial;
    }

    record GroupLineBody(
            @NotBlank @Size(max = 200) String group,
            @NotNull Role role,
            @Nullable @Size(max = 200) String team) {}

    /**
     * @param clientSecret null to keep the present one, empty for a client without one
     * @param scopes what is asked for beside {@code openid}; null for {@code profile} and {@code email}
     * @param loginClaim null for {@code preferred_username}
     * @param groupClaim null for {@code groups}
     * @param knownBy null for {@code NOTHING}
     * @param otherRole null if people in none of the groups have no access
     */
    record IdentityProviderBody(
            @NotBlank @Size(max = 60) String title,
            @NotBlank @Size(max = 500) String issuer,
            @NotBlank @Size(max = 300) String clientId,
            @Nullable @Size(max = 1_000) String clientSecret,

            @Nullable @Size(max = 20)
            List<@Pattern(regexp = "[!#-\\[\\]-~]{1,100}", message = "a scope has no spaces") String> scopes,

            @Nullable @Size(min = 1, max = 100) String loginClaim,
            @Nullable @Size(min = 1, max = 100) String groupClaim,
            @Nullable KnownBy knownBy,
            @NotNull Boolean addsPeople,
            @Nullable Role otherRole,
            @NotNull Boolean addressesVerified,
            @NotNull Boolean active,
            @NotNull @Size(max = 200) List<@Valid @NotNull GroupLineBody> groups) {

        ProviderDetails details() {
            var asked = new LinkedHashSet<>(List.of("openid"));
            asked.addAll(scopes == null ? List.of("profile", "email") : scopes);
            return new ProviderDetails(
                    title.strip(),
                    issuer.strip(),
                    clientId.strip(),
                    List.copyOf(asked),
                    loginClaim == null ? "preferred_username" : loginClaim,
                    groupClaim == null ? "groups" : groupClaim,
                    knownBy == null ? KnownBy.NOTHING : knownBy,
                    addsPeople,
                    otherRole,
                    addressesVerified,
                    active,
                    groups.stream()
                            .map(line -> new GroupLine(line.group().strip(), line.role(), line.team()))
                            .toList());
        }
    }

    /**
     * @param hasSecret whether this service proves itself there with a secret
     * @param returnAddress what the provider must know as the redirect URI of this client
     */
    record IdentityProviderView(
            String name,
            String title,
            String issuer,
            String clientId,
            boolean hasSecret,
            List<String> scopes,
            String loginClaim,
            String groupClaim,
            KnownBy knownBy,
            boolean addsPeople,
            @Nullable Role otherRole,
            boolean addressesVerified,
            boolean active,
            List<GroupLine> groups,
            String returnAddress) {}

    private IdentityProviderView view(IdentityProvider of) {
        var details = of.details();
        return new IdentityProviderView(
                of.name(),
                details.title(),
                details.issuer(),
                details.clientId(),
                of.hasSecret(),
                details.scopes(),
                details.loginClaim(),
                details.groupClaim(),
                details.knownBy(),
                details.addsPeople(),
                details.otherRole(),
                details.addressesVerified(),
                details.active(),
                details.groups(),
                trial.returnAddress(of.name()));
    }

    @GetMapping
    List<IdentityProviderView> listIdentityProviders() {
        return providers.all().stream().map(this::view).toList();
    }

    @PutMapping("/{name}")
    IdentityProviderView saveIdentityProvider(
            @AuthenticationPrincipal Person by,
            @PathVariable @Pattern(regexp = NAME, message = "lower-case letters, digits and hyphens") String name,
            @Valid @RequestBody IdentityProviderBody body) {
        return view(providers.save(by, name, body.details(), body.clientSecret()));
    }

    @DeleteMapping("/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void removeIdentityProvider(@AuthenticationPrincipal Person by, @PathVariable String name) {
        providers.remove(by, name);
    }

    @PostMapping("/{name}/test")
    ProviderTrial.ProviderFindings testIdentityProvider(@PathVariable String name) {
        return trial.of(providers.require(name));
    }
}
