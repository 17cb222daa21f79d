package dev.oddsentry.service.authoring;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.document.FieldPlaces;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Teams;
import dev.oddsentry.service.recipients.Directory;
import dev.oddsentry.service.visibility.Visibility;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Whether the recipients that a definition names are there and may be mailed. */
@Component
class RecipientChecks {
    private static final int MOST_SLIPS = 2;

    private final DefinitionStore store;
    private final Teams teams;
    private final People people;
    private final Directory directory;
    private final Settings.Mail mail;
    private final Visibility visibility;

    RecipientChecks(
            DefinitionStore store,
            Teams teams,
            People people,
            Directory directory,
            Settings settings,
            Visibility visibility) {
        this.visibility = visibility;
        this.directory = directory;
        this.store = store;
        this.teams = teams;
        this.people = people;
        this.mail = settings.mail();
    }

    /** Mail to a domain that nobody here has, though it looks much like one that somebody has. */
    private Optional<Problem> slip(String address) {
        var known = new TreeSet<String>();
        mail.allowedDomains().forEach(domain -> known.add(domain.toLowerCase(Locale.ROOT)));
        people.all().forEach(person -> known.add(domain(person.email())));
        teams.allAddresses().forEach(each -> known.add(domain(each)));
        String domain = domain(address);
        if (known.contains(domain)) return Optional.empty();
        return Nearest.to(domain, known)
                .filter(near -> Nearest.distance(domain, near) <= MOST_SLIPS)
                .map(near -> Problem.warning(
                                "nobody here has an address at " + domain + ", though at " + near + "; is it a slip?",
                                "",
                                null)
                        .suggesting(address.substring(0, address.lastIndexOf('@') + 1) + near));
    }

    private static String domain(String address) {
        return address.substring(address.lastIndexOf('@') + 1).toLowerCase(Locale.ROOT);
    }

    /** Those who get nothing, and so nothing that differs: nobody behind them is among the recipients. */
    List<Problem> outside(String field, List<String> some, List<String> recipients, FieldPlaces places) {
        var all = addresses(recipients);
        var problems = new ArrayList<Problem>();
        for (int i = 0; i < some.size(); i++) {
            if (addresses(List.of(some.get(i))).stream().anyMatch(all::contains)) continue;
            String at = field + "[" + i + "]";
            problems.add(places.locate(
                    at, Problem.warning(some.get(i) + " is not under \"to\", so nothing is sent there", "", null)));
        }
        return problems;
    }

    private Set<String> addresses(List<String> written) {
        return directory.written(written).stream()
                .map(each -> MailAddress.bare(each).toLowerCase(Locale.ROOT))
                .collect(Collectors.toSet());
    }

    /** @param field that has them, as a list */
    List<Problem> problems(String field, List<String> written, FieldPlaces places) {
        var problems = new ArrayList<Problem>();
        for (int i = 0; i < written.size(); i++) {
            String at = field + "[" + i + "]";
            var reference = MailAddress.reference(written.get(i)).orElse(null);
            if (reference == null) {
                String address = MailAddress.bare(written.get(i));
                if (!mail.allows(address))
                    problems.add(places.locate(
                            at,
                            Problem.error(
                                    "the operator allows no mail to the domain of " + address + "; allowed are: "
                                            + String.join(", ", mail.allowedDomains()),
                                    "",
                                    null)));
                else slip(address).ifPresent(problem -> problems.add(places.locate(at, problem)));
                continue;
            }
            var names = switch (reference.target()) {
                case TEAM -> teams.names();
                case PERSON -> people.logins();
                case LIST -> store.names(Kind.RECIPIENT_LIST);
            };
            if (names.contains(reference.name())) continue;
            problems.add(places.locate(
                    field + "[" + i + "]",
                    Problem.error(
                                    "there is no " + reference.target().code() + " \"" + reference.name() + "\"",
                                    "",
                                    null)
                            .suggesting(Nearest.to(
                                            reference.name(),
                                            reference.target() == MailAddress.Target.LIST
                                                    ? visibility.now().names(Kind.RECIPIENT_LIST, names)
                                                    : names)
                                    .orElse(null))));
        }
        return problems;
    }
}
