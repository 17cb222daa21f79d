package dev.oddsentry.service.recipients;

import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Teams;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Recipients as documents write them, as addresses. */
@Component
public class Directory {
    private final Teams teams;
    private final People people;
    private final DefinitionStore definitions;

    Directory(Teams teams, People people, DefinitionStore definitions) {
        this.teams = teams;
        this.people = people;
        this.definitions = definitions;
    }

    /** Teams, people and lists as their addresses, each address as it is written; an unknown reference gives none. */
    public List<String> written(List<String> references) {
        return references.stream().flatMap(this::expanded).distinct().toList();
    }

    private Stream<String> expanded(String written) {
        return MailAddress.reference(written).map(this::of).orElseGet(() -> Stream.of(written));
    }

    private Stream<String> of(MailAddress.Reference reference) {
        return switch (reference.target()) {
            case TEAM -> teams.addressesOf(reference.name()).stream();
            case PERSON -> people.addressOf(reference.name()).stream();
            case LIST ->
                definitions.recipientList(reference.name()).stream()
                        .flatMap(list -> list.definition().recipients().stream())
                        .flatMap(this::expanded);
        };
    }
}
