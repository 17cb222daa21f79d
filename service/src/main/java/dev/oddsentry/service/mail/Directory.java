package dev.oddsentry.service.mail;

import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Teams;
import jakarta.mail.internet.AddressException;
import jakarta.mail.internet.InternetAddress;
import java.io.UnsupportedEncodingException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Recipients as they are written, as addresses of a message. */
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

    /** Each address once; an unknown reference gives none. */
    public List<InternetAddress> addresses(List<String> written) {
        var found = new LinkedHashMap<String, InternetAddress>();
        written.stream()
                .flatMap(this::expanded)
                .map(Directory::address)
                .forEach(address -> found.putIfAbsent(address.getAddress().toLowerCase(Locale.ROOT), address));
        return List.copyOf(found.values());
    }

    /** The same with teams, people and lists as their addresses, as they are written. */
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

    private static InternetAddress address(String written) {
        try {
            var address = new InternetAddress(MailAddress.bare(written), true);
            String name = MailAddress.name(written);
            if (!name.isEmpty()) address.setPersonal(name, StandardCharsets.UTF_8.name());
            return address;
        } catch (AddressException | UnsupportedEncodingException e) {
            throw new IllegalStateException("\"" + written + "\" is not a mail address", e);
        }
    }
}
