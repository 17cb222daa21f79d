package dev.oddsentry.service.access;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import dev.oddsentry.service.web.RefusedException;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Decides who may do what. */
@Component
public class Access {
    private final AccessPolicy policy;

    Access(AccessPolicy policy) {
        this.policy = policy;
    }

    /**
     * @param owner the team that owns what it is about; empty if every team shares it, or it is about nothing
     * @throws RefusedException with who may
     */
    void require(Person person, Right right, Optional<String> owner) {
        requireRole(person, right);
        requireTeam(person, right, owner);
    }

    /** @throws RefusedException unless the person's role has the right, for one thing or another */
    void requireRole(Person person, Right right) {
        boolean teamsDecide = policy.teamsDecide();
        if (!right.isOf(person.role(), teamsDecide))
            throw RefusedException.forbidden(
                    "Your role is " + words(person.role()) + "; this is for " + right.holders(teamsDecide) + ".");
    }

    /** @throws RefusedException if it depends on the owner, and that is another team */
    void requireTeam(Person person, Right right, Optional<String> owner) {
        if (right.isOfTeam() && policy.teamsDecide() && !isOfTeam(person, owner))
            throw RefusedException.forbidden("This belongs to the team " + owner.orElseThrow() + ", and you are "
                    + (person.teams().isEmpty() ? "in no team" : "in " + String.join(", ", person.teams()))
                    + ". Ask somebody of that team, or an operator.");
    }

    private static boolean isOfTeam(Person person, Optional<String> owner) {
        return person.is(Role.OPERATOR) || owner.isEmpty() || person.teams().contains(owner.get());
    }

    /** @throws RefusedException unless the person may change the definition */
    public void requireWrite(Person person, Definition definition) {
        require(person, Right.WRITE, Subjects.of(definition));
    }

    /** @throws RefusedException unless the person may activate the definition */
    public void requireLead(Person person, Definition definition) {
        require(person, Right.LEAD, Subjects.of(definition));
    }

    private static String words(Role role) {
        return role.name().toLowerCase(Locale.ROOT);
    }
}
