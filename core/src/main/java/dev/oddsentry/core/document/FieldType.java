package dev.oddsentry.core.document;

import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Function;

/** What a field of a document contains: how it is read, how it is written back, and how it is described. */
public interface FieldType<V> {
    /** Empty where nothing is written, or where what is written is refused. */
    Optional<V> read(Fields fields, String name);

    /** The value as {@link #read} takes it: a scalar, a list or a map. */
    Object print(V value);

    Shape shape();

    static <V> FieldType<V> of(Shape shape, BiFunction<Fields, String, Optional<V>> read, Function<V, Object> print) {
        return new FieldType<>() {
            @Override
            public Optional<V> read(Fields fields, String name) {
                return read.apply(fields, name);
            }

            @Override
            public Object print(V value) {
                return print.apply(value);
            }

            @Override
            public Shape shape() {
                return shape;
            }
        };
    }
}
