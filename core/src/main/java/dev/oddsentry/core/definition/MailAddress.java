package dev.oddsentry.core.definition;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/** The shape of mail addresses, in documents and in data. */
public final class MailAddress {
    private static final int LONGEST = 254;
    private static final String SHAPE = "[^\\s@,;<>\"()\\\\]{1,64}@[^\\s@,;<>\"()\\\\]+\\.?[^\\s@,;<>\"()\\\\]+";
    /** {@code Ines Holm <ines.holm@skerryline.example>}, the name perhaps in quotation marks. */
    private static final Pattern NAMED =
            Pattern.compile("\\s*(?:\"([^\"\\p{Cntrl}]*)\"|([^\"<>@,;\\p{Cntrl}]*?))\\s*<([^<>]+)>\\s*");

    private static final Pattern REFERENCE = Pattern.compile("(team|person):\\s*([^,;<>@\"\\p{Cntrl}]{1,80})");

    private MailAddress() {}

    /** Shape only; whether it exists is for the mail server to say. Line breaks and lists never get through. */
    public static boolean isOne(String address) {
        return address.length() <= LONGEST && address.matches(SHAPE);
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

    /** Someone whom the service knows: {@code team: Traffic reporting}, {@code person: ines}. */
    public record Reference(boolean isTeam, String name) {}

    /** Empty where an address is written. */
    public static Optional<Reference> reference(String written) {
        var reference = REFERENCE.matcher(written.strip());
        return reference.matches()
                ? Optional.of(new Reference(
                        reference.group(1).equals("team"), reference.group(2).strip()))
                : Optional.empty();
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
        throw new InvalidDefinitionException(List.of(Problem.error(
                "\"" + written + "\" is no mail address; write one like ines.holm@skerryline.example", "", null)));
    }
}
