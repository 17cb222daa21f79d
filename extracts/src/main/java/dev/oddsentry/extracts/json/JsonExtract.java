package dev.oddsentry.extracts.json;

import dev.oddsentry.core.extract.CellWords;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.value.CellText;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonEncoding;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.StreamWriteFeature;
import tools.jackson.core.json.JsonFactory;

/**
 * Writes an extract as JSON (RFC 8259): the columns, then the rows with their values by column name. Values are as they came from the query;
 * the word that a code stands for is given beside it. Numbers keep every digit, instants are in UTC; durations are texts of ISO 8601,
 * and what JSON has no number for is the text NaN, Infinity or -Infinity.
 */
public final class JsonExtract {
    private static final JsonFactory FACTORY = JsonFactory.builder()
            .disable(StreamWriteFeature.AUTO_CLOSE_TARGET)
            .enable(StreamWriteFeature.WRITE_BIGDECIMAL_AS_PLAIN)
            .build();

    private JsonExtract() {}

    /** Writes all rows and flushes; the stream stays open. */
    public static void write(Extract extract, OutputStream out) {
        try (var json = FACTORY.createGenerator(ObjectWriteContext.empty(), out, JsonEncoding.UTF8)) {
            json.writeStartObject();
            columns(extract, json);
            json.writeArrayPropertyStart("rows");
            for (var row : extract.rows()) row(row, extract, json);
            json.writeEndArray();
            json.writeEndObject();
            json.writeRaw('\n');
        }
    }

    private static void columns(Extract extract, JsonGenerator json) {
        json.writeArrayPropertyStart("columns");
        for (var column : extract.columns()) {
            json.writeStartObject();
            json.writeStringProperty("name", column.name());
            json.writeStringProperty("label", column.label());
            json.writeStringProperty("type", column.type().code());
            if (column.unit() != null) json.writeStringProperty("unit", column.unit());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private static void row(Extract.Row row, Extract extract, JsonGenerator json) {
        json.writeStartObject();
        if (row.severity() == null) json.writeNullProperty("severity");
        else json.writeStringProperty("severity", row.severity().word());
        json.writeArrayPropertyStart("updates");
        row.kinds().stream().sorted().map(UpdateKind::code).forEach(json::writeString);
        json.writeEndArray();
        json.writeObjectPropertyStart("values");
        for (int i = 0; i < row.cells().size(); i++) {
            json.writeName(extract.columns().get(i).name());
            value(row.cells().get(i).value(), extract.zone(), json);
        }
        json.writeEndObject();
        json.writeObjectPropertyStart("words");
        for (int i = 0; i < row.cells().size(); i++) {
            Object value = row.cells().get(i).value();
            var column = extract.columns().get(i);
            String word = value == null ? null : CellWords.word(column, value, extract.zone());
            if (word != null) json.writeStringProperty(column.name(), word);
        }
        json.writeEndObject();
        json.writeObjectPropertyStart("was");
        for (int i = 0; i < row.cells().size(); i++) {
            if (row.cells().get(i).was() == null) continue;
            json.writeName(extract.columns().get(i).name());
            Object was = row.cells().get(i).was();
            value(was == Extract.Cell.WAS_MISSING ? null : was, extract.zone(), json);
        }
        json.writeEndObject();
        boolean linked = row.cells().stream().anyMatch(cell -> cell.link() != null);
        if (linked) json.writeObjectPropertyStart("links");
        for (int i = 0; linked && i < row.cells().size(); i++)
            if (row.cells().get(i).link() != null)
                json.writeStringProperty(
                        extract.columns().get(i).name(), row.cells().get(i).link());
        if (linked) json.writeEndObject();
        json.writeArrayPropertyStart("marked");
        for (int i = 0; i < row.cells().size(); i++)
            if (row.cells().get(i).marked())
                json.writeString(extract.columns().get(i).name());
        json.writeEndArray();
        json.writeEndObject();
    }

    private static void value(@Nullable Object value, ZoneId zone, JsonGenerator json) {
        switch (value) {
            case null -> json.writeNull();
            case Long whole -> json.writeNumber(whole);
            case BigDecimal exact -> json.writeNumber(exact);
            case Double notFinite when !Double.isFinite(notFinite) -> json.writeString(notFinite.toString());
            case Span span -> json.writeString(span.iso());
            case Double other -> json.writeNumber(other);
            case Boolean truth -> json.writeBoolean(truth);
            case Instant instant when CellWords.isFinite(instant) -> json.writeString(instant.toString());
            default -> json.writeString(CellText.of(Objects.requireNonNull(value), zone));
        }
    }
}
