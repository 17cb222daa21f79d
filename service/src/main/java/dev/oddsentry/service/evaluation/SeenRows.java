package dev.oddsentry.service.evaluation;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.EvaluatedRow;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Rows of one result that somebody may want, such as its exceptions, in its order, as often as one wants to go through them. The first ones are held in memory; over that they
 * go to a file put aside, so that a result of a million exceptions takes no more heap than one of some thousands. Belongs to one thread.
 */
public final class SeenRows implements AutoCloseable {
    private static final int MOST_IN_MEMORY = 5_000;
    private static final long MOST_CHARACTERS_IN_MEMORY = 8_000_000;
    private static final int BUFFER = 1 << 16;
    private static final byte NO_EXCEPTION = -1;

    private final List<EvaluatedRow> first = new ArrayList<>();
    private final Map<Severity, Long> bySeverity = new EnumMap<>(Severity.class);
    private @Nullable Path file;
    private @Nullable DataOutputStream out;
    private final ByteArrayOutputStream one = new ByteArrayOutputStream();
    private long count;
    private long kept;
    private long characters;

    /** Counts one whose row nobody will want. */
    public void count(EvaluatedRow exception) {
        count++;
        if (exception.severity() != null) bySeverity.merge(exception.severity(), 1L, Long::sum);
    }

    public void add(EvaluatedRow exception) {
        count(exception);
        kept++;
        // Once one has gone to the file, so do all after it, since their order is that of the result.
        boolean fits = file == null && first.size() < MOST_IN_MEMORY && characters < MOST_CHARACTERS_IN_MEMORY;
        if (fits) hold(exception);
        else inWords(() -> write(exception));
    }

    private void hold(EvaluatedRow exception) {
        first.add(exception);
        for (Object cell : exception.row()) if (cell instanceof String text) characters += text.length();
    }

    public long count() {
        return count;
    }

    public long count(Severity severity) {
        return bySeverity.getOrDefault(severity, 0L);
    }

    public Map<Severity, Long> bySeverity() {
        return Map.copyOf(bySeverity);
    }

    public void forEach(Consumer<EvaluatedRow> act) {
        forEach(_ -> true, act);
    }

    /** @param which by key; the cells of the others are not even read */
    public void forEach(Predicate<Digest> which, Consumer<EvaluatedRow> act) {
        for (var each : first) if (which.test(each.key())) act.accept(each);
        if (file == null) return;
        Path put = file;
        inWords(() -> {
            out().flush();
            try (var in = new DataInputStream(new BufferedInputStream(Files.newInputStream(put), BUFFER))) {
                for (long i = first.size(); i < kept; i++) {
                    var key = new Digest(in.readLong(), in.readLong());
                    int length = in.readInt();
                    if (which.test(key)) act.accept(read(key, in));
                    else in.skipNBytes(length);
                }
            }
        });
    }

    /** Its key and how many bytes follow, so that those who do not want it can pass it by. */
    private void write(EvaluatedRow exception) throws IOException {
        if (out == null) {
            file = Files.createTempFile("odd-exceptions-", ".bin");
            out = new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(file), BUFFER));
        }
        one.reset();
        var into = new DataOutputStream(one);
        into.writeLong(exception.fingerprint().high());
        into.writeLong(exception.fingerprint().low());
        into.writeByte(
                exception.severity() == null
                        ? NO_EXCEPTION
                        : exception.severity().ordinal());
        CellBytes.write(into, exception.identity());
        CellBytes.write(into, exception.row());
        out.writeLong(exception.key().high());
        out.writeLong(exception.key().low());
        out.writeInt(one.size());
        one.writeTo(out);
    }

    private static EvaluatedRow read(Digest key, DataInputStream in) throws IOException {
        var fingerprint = new Digest(in.readLong(), in.readLong());
        byte level = in.readByte();
        var severity = level == NO_EXCEPTION ? null : Severity.values()[level];
        var identity = CellBytes.read(in);
        return new EvaluatedRow(key, identity, severity, true, fingerprint, CellBytes.read(in));
    }

    private DataOutputStream out() {
        return Objects.requireNonNull(out);
    }

    private interface Act {
        void run() throws IOException;
    }

    private static void inWords(Act act) {
        try {
            act.run();
        } catch (IOException e) {
            throw new UncheckedIOException("The rows could not be put aside; is the disk full?", e);
        }
    }

    /** Takes the file away. */
    @Override
    public void close() {
        if (file == null) return;
        Path put = file;
        inWords(() -> {
            if (out != null) out.close();
            Files.deleteIfExists(put);
        });
    }
}
