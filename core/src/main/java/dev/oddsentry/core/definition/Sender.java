package dev.oddsentry.core.definition;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Who a message is from: {@code Traffic reporting}, {@code traffic@skerryline.example}, or {@code Traffic reporting
 * <traffic@skerryline.example>}.
 *
 * @param name null for the name of the installation
 * @param address null for the address of the installation
 */
public record Sender(@Nullable String name, @Nullable String address) {
    private static final Pattern NAME = Pattern.compile("[^<>@\"\\p{Cntrl}]{1,80}");

    /** @throws InvalidDefinitionException if it is neither a name nor an address */
    static Sender of(String written) {
        String text = written.strip();
        if (NAME.matcher(text).matches()) return new Sender(text, null);
        String address = MailAddress.bare(text);
        String name = MailAddress.name(text);
        if (MailAddress.isOne(address)) return new Sender(name.isEmpty() ? null : name, address);
        throw InvalidDefinitionException.of("\"" + text
                + "\" is not a sender. Examples: Traffic reporting, Traffic reporting <traffic@company.example>");
    }

    String text() {
        if (address == null) return name == null ? "" : name;
        if (name == null) return address;
        return (name.matches("[^\",;]*") ? name : "\"" + name + "\"") + " <" + address + ">";
    }
}
