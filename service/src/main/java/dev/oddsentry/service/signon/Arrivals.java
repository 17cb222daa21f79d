package dev.oddsentry.service.signon;

import static dev.oddsentry.service.db.generated.Tables.IDENTITY_PROVIDER;
import static dev.oddsentry.service.db.generated.Tables.PROVIDER_IDENTITY;

import dev.oddsentry.service.access.LogInEnds;
import dev.oddsentry.service.people.Operators;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.People.NewPerson;
import dev.oddsentry.service.people.People.PersonDetails;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import dev.oddsentry.service.secrets.SecretBox;
import java.text.Normalizer;
import java.time.Clock;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.security.oauth2.core.oidc.user.OidcUser;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Who of a provider is who here: recognises a person, adds one, and gives them the role and the teams of their groups, at each log-in. */
@Component
class Arrivals {
    private static final int LONGEST_LOGIN = 50;
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_ADDRESS = 254;

    private final DSLContext db;
    private final People people;
    private final Operators operators;
    private final LogInEnds logInEnds;
    private final SecretBox secrets;
    private final Clock clock;

    Arrivals(DSLContext db, People people, Operators operators, LogInEnds logInEnds, SecretBox secrets, Clock clock) {
        this.db = db;
        this.people = people;
        this.operators = operators;
        this.logInEnds = logInEnds;
        this.secrets = secrets;
        this.clock = clock;
    }

    /**
     * @param refreshToken by which the provider can be asked again; null if it gave none
     * @throws SignOnException if the person has no access
     */
    @Transactional
    public Person arrive(IdentityProvider provider, OidcUser user, @Nullable String refreshToken) {
        // One at a time, so that two browsers of somebody new do not add them twice.
        db.select(IDENTITY_PROVIDER.ID)
                .from(IDENTITY_PROVIDER)
                .where(IDENTITY_PROVIDER.ID.eq(provider.id()))
                .forUpdate()
                .fetch();
        var details = provider.details();
        var groups = groups(user, details.groupClaim());
        var known = known(provider, user);
        if (known.isPresent() && people.active(known.get().id()).isEmpty())
            throw new SignOnException(SignOnRefusal.DISABLED, known.get().login() + " is disabled");
        var role = details.role(groups)
                .orElseThrow(() -> new SignOnException(
                        SignOnRefusal.NO_GROUP,
                        known.map(Person::login).orElse(login(user, details)) + " is in none of the groups"));
        var person = known.map(there -> update(there, provider, user, role, groups))
                .orElseGet(() -> add(provider, user, role, groups));
        keep(provider, user, person, refreshToken);
        return person;
    }

    /** Who has lost all groups at the provider also loses what they are logged in with, unless they have a password of this service. */
    @Transactional
    public void endLogIns(IdentityProvider provider, OidcUser user) {
        cameBefore(provider, user)
                .filter(person -> !people.hasPassword(person))
                .ifPresent(person -> logInEnds.end(person, null));
    }

    private Optional<Person> cameBefore(IdentityProvider provider, OidcUser user) {
        return db.select(PROVIDER_IDENTITY.PERSON_ID)
                .from(PROVIDER_IDENTITY)
                .where(PROVIDER_IDENTITY.PROVIDER_ID.eq(provider.id()), PROVIDER_IDENTITY.SUBJECT.eq(user.getSubject()))
                .fetchOptional(PROVIDER_IDENTITY.PERSON_ID)
                .map(people::byId);
    }

    private Optional<Person> known(IdentityProvider provider, OidcUser user) {
        var before = cameBefore(provider, user);
        if (before.isPresent()) return before;
        Optional<Person> alike = switch (provider.details().knownBy()) {
            case NOTHING -> Optional.empty();
            case LOG_IN_NAME -> people.withLogin(login(user, provider.details()));
            case ADDRESS -> address(provider, user).flatMap(people::withAddress);
        };
        return alike.filter(found -> mayBeTakenFor(provider, found));
    }

    /** Somebody else of the same provider is not, nor is a program, nor the operator for emergencies, whom no provider may replace. */
    private boolean mayBeTakenFor(IdentityProvider provider, Person found) {
        return !operators.isEmergency(found)
                && !people.isService(found)
                && !db.fetchExists(
                        PROVIDER_IDENTITY,
                        PROVIDER_IDENTITY.PROVIDER_ID.eq(provider.id()),
                        PROVIDER_IDENTITY.PERSON_ID.eq(found.id()));
    }

    private Person update(Person there, IdentityProvider provider, OidcUser user, Role role, Set<String> groups) {
        var details = provider.details();
        // Without any line, what an operator said of the person counts.
        boolean mapped = !details.groups().isEmpty();
        var said = new PersonDetails(
                name(user).orElse(there.name()),
                address(provider, user).orElse(there.email()),
                mapped ? role : there.role(),
                details.teams(groups, there.teams()));
        return people.updateVouchedFor(there, said, details.title());
    }

    private Person add(IdentityProvider provider, OidcUser user, Role role, Set<String> groups) {
        var details = provider.details();
        String login = login(user, details);
        if (!details.addsPeople()) throw new SignOnException(SignOnRefusal.NOT_KNOWN, login + " is not known here");
        var said = new PersonDetails(
                name(user).orElse(login), address(provider, user).orElse(""), role, details.teams(groups, List.of()));
        return people.addVouchedFor(new NewPerson(login, said), details.title());
    }

    private void keep(IdentityProvider provider, OidcUser user, Person person, @Nullable String refreshToken) {
        byte[] sealed = refreshToken == null ? null : secrets.seal(refreshToken);
        db.insertInto(PROVIDER_IDENTITY)
                .set(PROVIDER_IDENTITY.PROVIDER_ID, provider.id())
                .set(PROVIDER_IDENTITY.SUBJECT, user.getSubject())
                .set(PROVIDER_IDENTITY.PERSON_ID, person.id())
                .set(PROVIDER_IDENTITY.REFRESH_TOKEN, sealed)
                .set(PROVIDER_IDENTITY.CONFIRMED_AT, clock.instant())
                .onDuplicateKeyUpdate()
                .set(PROVIDER_IDENTITY.REFRESH_TOKEN, sealed)
                .set(PROVIDER_IDENTITY.CONFIRMED_AT, clock.instant())
                .execute();
    }

    /** A list of texts, or a single one. */
    private static Set<String> groups(OidcUser user, String claim) {
        return switch (user.getClaims().get(claim)) {
            case Collection<?> several ->
                several.stream().filter(Objects::nonNull).map(String::valueOf).collect(Collectors.toSet());
            case String one -> Set.of(one);
            case null, default -> Set.of();
        };
    }

    private static Optional<String> name(OidcUser user) {
        return text(user.getFullName()).map(name -> cut(name.replaceAll("\\p{Cntrl}", " "), LONGEST_NAME));
    }

    private static Optional<String> text(@Nullable String claim) {
        return Optional.ofNullable(claim).map(String::strip).filter(text -> !text.isEmpty());
    }

    private static String cut(String text, int longest) {
        if (text.length() <= longest) return text;
        // Not through the middle of a character outside the first plane.
        return text.substring(0, Character.isHighSurrogate(text.charAt(longest - 1)) ? longest - 1 : longest);
    }

    /** Who has an address sees what is mailed to it, so it counts only if the provider has verified it. */
    private static Optional<String> address(IdentityProvider provider, OidcUser user) {
        boolean verified =
                user.getEmailVerified() == null ? provider.details().addressesVerified() : user.getEmailVerified();
        return text(user.getEmail())
                .filter(address ->
                        verified && address.length() <= LONGEST_ADDRESS && address.matches("[^@\\s]+@[^@\\s]+"));
    }

    /** In the letters that a log-in name has here: "Måkehamn\Åse.Ø@skerryline.example" is "ase.o". */
    static String login(@Nullable String said) {
        String plain = Objects.requireNonNullElse(said, "");
        if (plain.indexOf('@') > 0) plain = plain.substring(0, plain.indexOf('@'));
        plain = plain.substring(plain.lastIndexOf('\\') + 1);
        String folded = Normalizer.normalize(plain, Normalizer.Form.NFD)
                .toLowerCase(Locale.ROOT)
                .replaceAll("\\p{M}", "")
                .replace('ø', 'o')
                .replace("æ", "ae")
                .replace("ß", "ss")
                .replaceAll("[^a-z0-9._-]+", "-")
                .replaceAll("^-+|-+$", "");
        if (folded.isEmpty()) return "user";
        return folded.length() <= LONGEST_LOGIN ? folded : folded.substring(0, LONGEST_LOGIN);
    }

    private static String login(OidcUser user, ProviderDetails details) {
        return login(user.getClaims().get(details.loginClaim()) instanceof String text ? text : user.getSubject());
    }
}
