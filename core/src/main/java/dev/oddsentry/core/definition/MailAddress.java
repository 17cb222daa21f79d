package dev.oddsentry.core.definition;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.net.IDN;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** The shape of mail addresses, in documents and in data. */
public final class MailAddress {
    private static final int LONGEST = 254;
    private static final String SHAPE = "[^\\s@,;<>\"()\\\\]{1,64}@[^\\s@,;<>\"()\\\\]+\\.?[^\\s@,;<>\"()\\\\]+";
    private static final int LONGEST_DOMAIN = 253;
    private static final Pattern LABELS =
            Pattern.compile("[A-Za-z0-9_]([A-Za-z0-9_-]*[A-Za-z0-9_])?(\\.[A-Za-z0-9_]([A-Za-z0-9_-]*[A-Za-z0-9_])?)*");
    /** {@code Ines Holm <ines.holm@skerryline.example>}, the name perhaps in quotation marks. */
    private static final Pattern NAMED =
            Pattern.compile("\\s*(?:\"([^\"\\p{Cntrl}]*)\"|([^\"<>@,;\\p{Cntrl}]*?))\\s*<([^<>]+)>\\s*");

    private static final Pattern REFERENCE = Pattern.compile("(team|person|list):\\s*([^,;<>@\"\\p{Cntrl}]{1,80})");

    private MailAddress() {}

    /**
     * Shape only; whether it exists is for the mail server to say. Line breaks and lists never get through. The domain may have letters beyond ASCII; what
     * stands before it may not, since few mail servers take that (RFC 6531).
     */
    public static boolean isOne(String address) {
        return address.length() <= LONGEST && address.matches(SHAPE) && isAsciiBefore(address) && hasDomain(address);
    }

    private static boolean isAsciiBefore(String address) {
        return address.substring(0, address.lastIndexOf('@')).chars().allMatch(each -> each > ' ' && each < 0x7f);
    }

    private static boolean hasDomain(String address) {
        try {
            String ascii = IDN.toASCII(address.substring(address.lastIndexOf('@') + 1), IDN.ALLOW_UNASSIGNED);
            return ascii.length() <= LONGEST_DOMAIN && LABELS.matcher(ascii).matches();
        } catch (IllegalArgumentException noDomain) {
            return false;
        }
    }

    /** The address without a name before it. */
    public static String bare(String written) {
        var named = NAMED.matcher(written);
        return named.matches() ? named.group(3).strip() : written.strip();
    }

    /** The name before the address; empty where there is none. */
    public static String name(String written) {
        var named = NAMED.matcher(written);
        if (!named.matches()) return "";
        String quoted = named.group(1);
        return quoted == null ? named.group(2).strip() : quoted;
    }

    /** What a reference leads to. */
    public enum Target {
        TEAM,
        PERSON,
        LIST;

        public String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** Someone whom the service knows: {@code team: Traffic reporting}, {@code person: ines}, {@code list: harbour-masters}. */
    public record Reference(Target target, String name) {}

    /** Empty where an address is written. */
    public static Optional<Reference> reference(String written) {
        var reference = REFERENCE.matcher(written.strip());
        return reference.matches()
                ? Optional.of(new Reference(
                        Target.valueOf(reference.group(1).toUpperCase(Locale.ROOT)),
                        reference.group(2).strip()))
                : Optional.empty();
    }

    static boolean refersTo(Target target, String written) {
        return reference(written).filter(each -> each.target() == target).isPresent();
    }

    /** The names of the lists among recipients. */
    static Set<String> lists(Collection<String> written) {
        return written.stream()
                .flatMap(each -> reference(each).stream())
                .filter(each -> each.target() == Target.LIST)
                .map(Reference::name)
                .collect(Collectors.toCollection(TreeSet::new));
    }

    /**
     * What is typed into one field, taken apart at commas and semicolons.
     *
     * @throws InvalidDefinitionException if any of them is neither an address nor a reference
     */
    static List<String> list(String text) {
        var all = new ArrayList<String>();
        for (String each : text.split("[,;](?=(?:[^\"]*\"[^\"]*\")*[^\"]*$)")) {
            if (each.isBlank()) continue;
            String one = each.strip();
            if (reference(one).isEmpty()) check(one);
            all.add(one);
        }
        if (all.isEmpty()) check(text);
        return all;
    }

    /** @throws InvalidDefinitionException if it is none */
    static void check(String written) {
        if (isOne(bare(written))) return;
        String why = bare(written).matches(SHAPE) && !isAsciiBefore(bare(written))
                ? "\"" + written
                        + "\" has non-ASCII characters before the @, which few mail servers accept; use another address"
                : "\"" + written + "\" is not a mail address. Example: ines.holm@skerryline.example";
        throw new InvalidDefinitionException(List.of(Problem.error(why, "", null)));
    }
}
