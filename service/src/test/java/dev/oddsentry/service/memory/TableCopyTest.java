package dev.oddsentry.service.memory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.service.RunningService;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.springframework.transaction.support.TransactionTemplate;

/** Whatever a cell has arrives as it was. */
class TableCopyTest {
    private static final List<String> PIECES = List.of(
            "Gråvik", "\t", "\n", "\r\n", "\\", "\\N", "\\.", "", " ", "⛴", "😀", "'", "\"", "0", "x".repeat(70_000));

    private final RunningService service = RunningService.get();
    private final DSLContext db = service.bean(DSLContext.class);
    private final TransactionTemplate transactions = service.bean(TransactionTemplate.class);

    private static @Nullable String text(Random random) {
        if (random.nextInt(6) == 0) return null;
        var text = new StringBuilder();
        for (int i = random.nextInt(5); i > 0; i--) text.append(PIECES.get(random.nextInt(PIECES.size())));
        return text.toString();
    }

    @Test
    void anyTextAndNothingAtAll() {
        var random = new Random(11);
        var written = new ArrayList<@Nullable String>();
        for (int i = 0; i < 3_000; i++) written.add(text(random));
        transactions.executeWithoutResult(_ -> {
            db.execute("create temporary table copied (place int, text text) on commit drop");
            TableCopy.write(db, "copied (place, text)", copy -> {
                for (int i = 0; i < written.size(); i++)
                    copy.cell(i).cell(written.get(i)).end();
            });
            var read = db.fetch("select text from copied order by place").getValues(0, String.class);
            assertThat(read).isEqualTo(written);
        });
    }

    @Test
    void whatFailsHalfWayWritesNothingAndLeavesTheConnectionAsGoodAsBefore() {
        transactions.executeWithoutResult(_ -> {
            db.execute("create temporary table copied (place int, text text) on commit drop");
            db.execute("savepoint before");
            assertThatThrownBy(() -> TableCopy.write(db, "copied (place, text)", copy -> {
                        copy.cell(1).cell("one").end();
                        throw new IllegalStateException("the spool is gone");
                    }))
                    .hasStackTraceContaining("the spool is gone");
            db.execute("rollback to savepoint before");
            assertThat(db.fetchCount(DSL.table("copied"))).isZero();
        });
    }
}
