package dev.oddsentry.core.condition;

import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;

/** One sailing, in a result with a column of every type, for conditions to be evaluated on. */
final class Sailings {
    static final Columns COLUMNS = Columns.of(
            new Column("sailing", Type.TEXT),
            new Column("delay_min", Type.NUMBER),
            new Column("reason", Type.TEXT),
            new Column("status", Type.TEXT),
            new Column("tickets", Type.NUMBER),
            new Column("heads", Type.NUMBER),
            new Column("fare", Type.NUMBER),
            new Column("planned", Type.INSTANT),
            new Column("logged", Type.TIMESTAMP),
            new Column("due", Type.DATE),
            new Column("cutoff", Type.TIME),
            new Column("training", Type.TRUTH),
            new Column("drift", Type.NUMBER),
            new Column("Kaptein Å", Type.TEXT));

    private Sailings() {}

    static Object[] row() {
        return new Object[] {
            "SK-412",
            22L,
            null,
            "sailed",
            0L,
            7L,
            new BigDecimal("12.50"),
            Instant.parse("2026-11-23T17:05:00Z"),
            LocalDateTime.parse("2026-11-23T18:05:00"),
            LocalDate.parse("2026-11-17"),
            LocalTime.of(18, 5),
            false,
            Double.NaN,
            "Åse 😀"
        };
    }
}
