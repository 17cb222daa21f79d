package dev.oddsentry.service.db;

import dev.oddsentry.core.value.CellCodec;
import dev.oddsentry.core.value.Columns;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jooq.JSON;
import org.jooq.JSONB;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** JSON as it is kept in columns of type {@code jsonb}. */
public final class Json {
    private static final JsonMapper MAPPER = new JsonMapper();

    private Json() {}

    public static JSONB write(Object tree) {
        return JSONB.valueOf(MAPPER.writeValueAsString(tree));
    }

    /** As {@link #write}, for a column that keeps the order of fields. */
    public static JSON writeInOrder(Object tree) {
        return JSON.valueOf(MAPPER.writeValueAsString(tree));
    }

    public static <T> T read(JSONB json, TypeReference<T> type) {
        return MAPPER.readValue(json.data(), type);
    }

    /** Cells by column name, typed. */
    public static JSONB row(Columns columns, List<? extends @Nullable Object> cells) {
        var byName = new LinkedHashMap<String, @Nullable String>();
        for (int i = 0; i < columns.size(); i++) byName.put(columns.at(i).name(), CellCodec.encode(cells.get(i)));
        return write(byName);
    }

    public static Map<String, @Nullable Object> row(JSONB json) {
        var cells = new LinkedHashMap<String, @Nullable Object>();
        read(json, new TypeReference<LinkedHashMap<String, @Nullable String>>() {})
                .forEach((name, encoded) -> cells.put(name, CellCodec.decode(encoded)));
        return cells;
    }

    public static JSONB cells(List<? extends @Nullable Object> cells) {
        var encoded = new ArrayList<@Nullable String>();
        for (var cell : cells) encoded.add(CellCodec.encode(cell));
        return write(encoded);
    }

    public static List<@Nullable Object> cells(JSONB json) {
        var cells = new ArrayList<@Nullable Object>();
        for (String encoded : read(json, new TypeReference<List<@Nullable String>>() {}))
            cells.add(CellCodec.decode(encoded));
        return cells;
    }
}
