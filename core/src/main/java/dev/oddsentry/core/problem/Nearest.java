package dev.oddsentry.core.problem;

import java.util.Collection;
import java.util.Comparator;
import java.util.Locale;
import java.util.Optional;

/** Finds the known name a person probably meant. */
public final class Nearest {
    private Nearest() {}

    /** The closest of {@code known}, if close enough to be worth offering: at most a third of the letters differ. */
    public static Optional<String> to(String seen, Collection<String> known) {
        String wanted = seen.toLowerCase(Locale.ROOT);
        int farthest = Math.max(1, (wanted.length() + 1) / 3);
        return known.stream()
                .filter(name -> distance(wanted, name.toLowerCase(Locale.ROOT)) <= farthest)
                .min(Comparator.comparingInt((String name) -> distance(wanted, name.toLowerCase(Locale.ROOT)))
                        .thenComparing(Comparator.naturalOrder()));
    }

    /** Edits between two words, where two neighbours swapped count as one (optimal string alignment). */
    public static int distance(String a, String b) {
        int[][] cost = new int[a.length() + 1][b.length() + 1];
        for (int i = 0; i <= a.length(); i++) cost[i][0] = i;
        for (int j = 0; j <= b.length(); j++) cost[0][j] = j;
        for (int i = 1; i <= a.length(); i++) {
            for (int j = 1; j <= b.length(); j++) {
                int change = a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1;
                int best = Math.min(Math.min(cost[i - 1][j], cost[i][j - 1]) + 1, cost[i - 1][j - 1] + change);
                boolean swapped =
                        i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1);
                cost[i][j] = swapped ? Math.min(best, cost[i - 2][j - 2] + 1) : best;
            }
        }
        return cost[a.length()][b.length()];
    }
}
