package dev.oddsentry.service.queries;

import java.sql.ResultSet;
import java.sql.SQLException;

/**
 * How many rows the driver fetches at a time: few at first, since it holds them all and nobody knows yet how wide they are; many once a thousand of them were
 * narrow, which is faster; few again when a wide one comes.
 */
final class FetchSize {
    static final int FEW = 256;
    private static final int MANY = 1_000;
    private static final int NARROW = 2_000;
    private static final int NARROW_ROWS = 4 * FEW;

    private int narrow;
    private int size = FEW;

    /** @param characters of the row just read */
    void read(int characters, ResultSet rows) throws SQLException {
        narrow = characters <= NARROW ? narrow + 1 : 0;
        int wanted = narrow >= NARROW_ROWS ? MANY : FEW;
        if (wanted == size) return;
        size = wanted;
        rows.setFetchSize(size);
    }
}
