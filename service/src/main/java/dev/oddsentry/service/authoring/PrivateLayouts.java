package dev.oddsentry.service.authoring;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.SharedLayoutDefinition;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import dev.oddsentry.service.web.RefusedException;

/** Layouts that one person keeps for extracts of their own: others do not see them. */
final class PrivateLayouts {
    private PrivateLayouts() {}

    private static boolean isOpenTo(Person person, Definition definition) {
        return !(definition instanceof SharedLayoutDefinition layout)
                || layout.privateTo() == null
                || layout.privateTo().equals(person.login())
                || person.role() == Role.OPERATOR;
    }

    /** @throws RefusedException where it is, or would be, another's */
    static void refuseOthers(Person author, Definition written) {
        if (!isOpenTo(author, written))
            throw RefusedException.forbidden("The layout " + written.name()
                    + " would be private to somebody else; write private_to: " + author.login() + ", or leave it out.");
    }
}
