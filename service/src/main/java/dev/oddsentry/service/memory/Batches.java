package dev.oddsentry.service.memory;

import java.util.ArrayList;
import java.util.List;

/** Long lists, cut to what one statement takes. */
final class Batches {
    static final int MOST = 5_000;

    private Batches() {}

    static <T> List<List<T>> of(List<T> whole) {
        var batches = new ArrayList<List<T>>();
        for (int i = 0; i < whole.size(); i += MOST) batches.add(whole.subList(i, Math.min(i + MOST, whole.size())));
        return batches;
    }
}
