package dev.oddsentry.service.signon;

import dev.oddsentry.service.people.Role;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/**
 * What an operator says of an identity provider.
 *
 * @param title as the log-in page shows it
 * @param issuer its address, below which it says where everything is (OpenID Connect Discovery)
 * @param clientId what this service is called there
 * @param loginClaim the claim that has the log-in name
 * @param groupClaim the claim that has the groups
 * @param addsPeople whether somebody who is not known here is added
 * @param otherRole the role of people in none of the groups; null if they may not log in. Without any line it is the role of those who are added
 * @param addressesVerified whether its addresses count as verified where it does not say
 * @param active whether people can log in through it
 * @param groups the first that fits decides the role
 */
public record ProviderDetails(
        String title,
        String issuer,
        String clientId,
        List<String> scopes,
        String loginClaim,
        String groupClaim,
        KnownBy knownBy,
        boolean addsPeople,
        @Nullable Role otherRole,
        boolean addressesVerified,
        boolean active,
        List<GroupLine> groups) {
    /** @param team which its people are in; null for none */
    public record GroupLine(
            String group, Role role, @Nullable String team) {}

    /** Empty for somebody in none of the groups where these have no access. */
    Optional<Role> role(Set<String> ofPerson) {
        return groups.stream()
                .filter(line -> ofPerson.contains(line.group()))
                .map(GroupLine::role)
                .findFirst()
                .or(() -> Optional.ofNullable(otherRole));
    }

    /** Those that a person has from before, but for teams that a line names and that they are no longer in. */
    List<String> teams(Set<String> ofPerson, List<String> before) {
        var teams = new TreeSet<>(before);
        for (var line : groups) if (line.team() != null) teams.remove(line.team());
        for (var line : groups) if (line.team() != null && ofPerson.contains(line.group())) teams.add(line.team());
        return List.copyOf(teams);
    }
}
