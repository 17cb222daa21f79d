package dev.oddsentry.core.extract;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.net.URI;
import java.net.URISyntaxException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Where a value of a column leads: an address with fields of the row, such as {@code https://records.example/sailings/{{sailing_id}}}, or
 * a column that holds the address itself, {@code {{url}}}.
 */
public final class CellLink {
    private static final Pattern START = Pattern.compile("(?i)(https?://[^/{}?#\\s]+|mailto:).*");
    private static final Pattern COLUMN_ALONE = Pattern.compile("\\{\\{\\s*[^#^/{}|]+\\}\\}");
    private static final Set<String> SCHEMES = Set.of("http", "https", "mailto");
    private static final int LONGEST = 2_000;

    private final String text;
    private final Template template;
    private final Set<String> columns;
    private final boolean columnAlone;

    private CellLink(String text) {
        this.text = text;
        this.template = Template.of(text);
        this.columns = Set.copyOf(template.fields());
        this.columnAlone = COLUMN_ALONE.matcher(text).matches();
    }

    /** @throws InvalidDefinitionException if it is no such address */
    public static CellLink of(String text) {
        var link = new CellLink(text.strip());
        if (!START.matcher(link.text).matches() && !link.columnAlone)
            throw InvalidDefinitionException.of(
                    "\"" + text
                            + "\" is not a link. Examples: https://records.example/sailings/{{sailing_id}}, or {{url}} for a column with the address");
        return link;
    }

    /** The text that it was made of. */
    public String template() {
        return text;
    }

    /** The columns that it names. */
    public Set<String> columns() {
        return columns;
    }

    /**
     * The address for one row.
     *
     * @param text of each column, by name; null for a value that is missing
     * @return empty if a value is missing, or what comes out is no address that a reader may be led to
     */
    public Optional<String> to(Function<String, @Nullable String> text) {
        Map<String, @Nullable Object> values = new HashMap<>();
        for (String column : columns) {
            String value = text.apply(column);
            if (value == null || value.isBlank()) return Optional.empty();
            values.put(column, columnAlone ? value.strip() : encoded(value));
        }
        String address = template.render(values);
        return isHarmless(address) ? Optional.of(address) : Optional.empty();
    }

    /** As a part of a path or of a query. */
    private static String encoded(String value) {
        return URLEncoder.encode(value, StandardCharsets.UTF_8).replace("+", "%20");
    }

    private static boolean isHarmless(String address) {
        if (address.length() > LONGEST) return false;
        try {
            var scheme = new URI(address).getScheme();
            return scheme != null && SCHEMES.contains(scheme.toLowerCase(Locale.ROOT));
        } catch (URISyntaxException none) {
            return false;
        }
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof CellLink link && link.text.equals(text);
    }

    @Override
    public int hashCode() {
        return text.hashCode();
    }

    @Override
    public String toString() {
        return text;
    }
}
