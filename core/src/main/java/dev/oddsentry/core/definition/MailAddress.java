package dev.oddsentry.core.definition;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.util.List;

/** The shape of mail addresses, in documents and in data. */
public final class MailAddress {
    private static final int LONGEST = 254;
    private static final String SHAPE = "[^\\s@,;<>\"()\\\\]{1,64}@[^\\s@,;<>\"()\\\\]+\\.?[^\\s@,;<>\"()\\\\]+";

    private MailAddress() {}

    /** Shape only; whether it exists is for the mail server to say. Line breaks and lists never get through. */
    public static boolean isOne(String address) {
        return address.length() <= LONGEST && address.matches(SHAPE);
    }

    /** @throws InvalidDefinitionException if it is none */
    static void check(String address) {
        if (isOne(address)) return;
        throw new InvalidDefinitionException(List.of(Problem.error(
                "\"" + address + "\" is no mail address; write one like ines.holm@skerryline.example", "", null)));
    }
}
