package dev.oddsentry.core.schedule;

import java.time.Instant;
import java.util.List;
import java.util.NavigableSet;
import java.util.Optional;
import java.util.TreeSet;

/** Single instants, as RFC 5545 has them in RDATE. */
record GivenDates(NavigableSet<Instant> instants) implements Slots {
    static GivenDates of(List<Instant> instants) {
        return new GivenDates(new TreeSet<>(instants));
    }

    @Override
    public Optional<Instant> nextAfter(Instant after) {
        return Optional.ofNullable(instants.higher(after));
    }
}
