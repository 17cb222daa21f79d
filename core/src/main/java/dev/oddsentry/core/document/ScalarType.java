package dev.oddsentry.core.document;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/**
 * A value that is written as one text or number.
 *
 * @param parse throws an {@link InvalidDefinitionException} for what it refuses
 */
public record ScalarType<V>(Shape shape, Function<String, V> parse, Function<V, Object> written)
        implements FieldType<V> {
    @Override
    public Optional<V> read(Fields fields, String name) {
        return fields.parsed(name, parse);
    }

    @Override
    public Object print(V value) {
        return written.apply(value);
    }

    /** Several of them; a single one counts as a list of one. */
    public FieldType<List<V>> list() {
        return FieldType.of(
                shape.orList(),
                (fields, name) -> fields.has(name) ? Optional.of(fields.parsedItems(name, parse)) : Optional.empty(),
                values -> values.stream().map(written).toList());
    }

    /** The same for those who write it, with a meaning of its own. */
    public ScalarType<V> described(String words) {
        return new ScalarType<>(new Shape(words, shape.schema(), shape.parts()), parse, written);
    }
}
