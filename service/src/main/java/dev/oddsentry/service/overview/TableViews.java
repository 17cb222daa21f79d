package dev.oddsentry.service.overview;

import static dev.oddsentry.service.db.generated.Tables.TABLE_VIEW;

import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;

/** Which columns of the console's tables a person hides, and how wide the others are. */
@Component
public class TableViews {
    private static final int MOST = 500;

    private final DSLContext db;
    private final Clock clock;

    TableViews(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /**
     * @param table such as {@code rules} or {@code query:sailings-lately}
     * @param hidden names of columns
     * @param widths in pixels, by the name of the column; others are as wide as their text
     */
    public record TableView(String table, List<String> hidden, Map<String, Integer> widths) {}

    public List<TableView> of(Person of) {
        return db.selectFrom(TABLE_VIEW)
                .where(TABLE_VIEW.PERSON_ID.eq(of.id()))
                .orderBy(TABLE_VIEW.TABLE_NAME)
                .fetch(row -> new TableView(
                        row.getTableName(),
                        Json.read(row.getHidden(), new TypeReference<List<String>>() {}),
                        Json.read(row.getWidths(), new TypeReference<Map<String, Integer>>() {})));
    }

    /** @throws RefusedException if the person has too many */
    @Transactional
    public void save(Person of, TableView view) {
        if (db.fetchCount(TABLE_VIEW, TABLE_VIEW.PERSON_ID.eq(of.id()), TABLE_VIEW.TABLE_NAME.ne(view.table())) >= MOST)
            throw RefusedException.conflict("A person has max " + MOST + " tables with columns of their own choice.");
        db.insertInto(TABLE_VIEW)
                .set(TABLE_VIEW.PERSON_ID, of.id())
                .set(TABLE_VIEW.TABLE_NAME, view.table())
                .set(TABLE_VIEW.HIDDEN, Json.write(view.hidden()))
                .set(TABLE_VIEW.WIDTHS, Json.write(view.widths()))
                .set(TABLE_VIEW.AT, clock.instant())
                .onConflict(TABLE_VIEW.PERSON_ID, TABLE_VIEW.TABLE_NAME)
                .doUpdate()
                .setAllToExcluded()
                .execute();
    }

    /** Back to how the table comes. */
    public void remove(Person of, String table) {
        db.deleteFrom(TABLE_VIEW)
                .where(TABLE_VIEW.PERSON_ID.eq(of.id()), TABLE_VIEW.TABLE_NAME.eq(table))
                .execute();
    }
}
