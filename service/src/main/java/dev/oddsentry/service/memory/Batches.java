package dev.oddsentry.service.memory;

import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.name;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.unnest;

import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.Name;
import org.jooq.Table;

/**
 * Long lists, cut to what one statement takes. They are joined as a table and not compared with {@code any}: in the transaction that has
 * just written a million findings nobody has counted them yet, and a plan that goes over all of them for each list takes hours.
 */
final class Batches {
    static final int MOST = 5_000;
    private static final Name WANTED = name("wanted");

    /** The id of each row of {@link #wanted}. */
    static final Field<Long> WANTED_ID = field(name("wanted", "id"), Long.class);

    private Batches() {}

    static Table<?> wanted(List<Long> ids) {
        return unnest(ids.toArray(Long[]::new)).as(WANTED, name("id"));
    }

    /** The same as a condition. */
    static Condition isOneOf(Field<Long> id, List<Long> ids) {
        return id.in(select(WANTED_ID).from(wanted(ids)));
    }

    static Condition isOneOf(Field<UUID> key, UUID[] keys) {
        var wanted = field(name("wanted", "key"), UUID.class);
        return key.in(select(wanted).from(unnest(keys).as(WANTED, name("key"))));
    }

    static <T> List<List<T>> of(List<T> whole) {
        var batches = new ArrayList<List<T>>();
        for (int i = 0; i < whole.size(); i += MOST) batches.add(whole.subList(i, Math.min(i + MOST, whole.size())));
        return batches;
    }
}
