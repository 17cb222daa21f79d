package dev.oddsentry.core.extract;

import dev.oddsentry.core.finding.Severity;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * How the severities of a rule are named and coloured for people; what is not said is as usual.
 *
 * @param all at most one for each severity, the mildest first
 */
public record SeverityLooks(List<Look> all) {
    /** A good severity, such as "on target", is told from the others without colour too. */
    private static final String GOOD = "✓";

    public static final SeverityLooks USUAL = new SeverityLooks(List.of());

    /**
     * @param word null for the usual word of the reader's language
     * @param colour null for the usual one
     */
    public record Look(
            Severity level, @Nullable String word, @Nullable Tone colour) {}

    public SeverityLooks {
        all = all.stream().sorted(Comparator.comparing(Look::level)).toList();
    }

    private Optional<Look> of(Severity severity) {
        return all.stream().filter(look -> look.level() == severity).findFirst();
    }

    /** The word that the layout gives; null for the usual one. */
    public @Nullable String word(Severity severity) {
        return of(severity).map(Look::word).orElse(null);
    }

    public Tone colour(Severity severity) {
        return of(severity).map(Look::colour).orElse(usual(severity));
    }

    /** The sign that stands before the word. */
    public String sign(Severity severity) {
        return colour(severity) == Tone.GREEN ? GOOD : severity.sign();
    }

    private static Tone usual(Severity severity) {
        return switch (severity) {
            case CRITICAL -> Tone.RED;
            case WARNING -> Tone.AMBER;
            case NOTICE -> Tone.GREY;
        };
    }
}
