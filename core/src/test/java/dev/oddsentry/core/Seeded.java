package dev.oddsentry.core;

import java.util.Random;
import java.util.function.Consumer;

/** Runs a property over cases from one seed, which is printed when it fails and can be given again as {@code -Dodd.seed=…}. */
public final class Seeded {
    private Seeded() {}

    public static void cases(int count, Consumer<Random> property) {
        long seed = Long.getLong("odd.seed", System.nanoTime());
        for (int i = 0; i < count; i++) {
            try {
                property.accept(new Random(seed + i));
            } catch (AssertionError | RuntimeException failed) {
                throw new AssertionError("case " + i + "; repeat it with -Dodd.seed=" + (seed + i), failed);
            }
        }
    }
}
