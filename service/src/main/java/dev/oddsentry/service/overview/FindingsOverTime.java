package dev.oddsentry.service.overview;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.extract;
import static org.jooq.impl.DSL.floor;
import static org.jooq.impl.DSL.inline;
import static org.jooq.impl.DSL.lateral;
import static org.jooq.impl.DSL.min;
import static org.jooq.impl.DSL.name;
import static org.jooq.impl.DSL.percentileCont;
import static org.jooq.impl.DSL.row;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.trueCondition;
import static org.jooq.impl.DSL.values;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.memory.FindingEventKind;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import dev.oddsentry.service.web.RefusedException;
import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.jooq.DSLContext;
import org.jooq.DatePart;
import org.jooq.Field;
import org.jooq.Row2;
import org.jooq.impl.SQLDataType;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** How many findings were open at the end of each day, and for how long they stay open; by rule or by team. */
@Component
public class FindingsOverTime {
    private static final int MOST_DAYS = 400;
    /** Zones differ by multiples of it, so that what is counted by it can be put into the days of any zone. */
    private static final int QUARTER_HOUR = 900;

    /** Those that begin an episode; a clearing that was not confirmed goes on with the one before. */
    private static final Set<FindingEventKind> BEGINNINGS =
            EnumSet.of(FindingEventKind.OPENED, FindingEventKind.OPENED_AGAIN);

    private static final Set<FindingEventKind> OPENINGS = EnumSet.of(
            FindingEventKind.OPENED,
            FindingEventKind.OPENED_AGAIN,
            FindingEventKind.BACK_IN_WINDOW,
            FindingEventKind.BACK_BEFORE_CONFIRMED);
    private static final Set<FindingEventKind> ENDINGS =
            EnumSet.of(FindingEventKind.CLEARED, FindingEventKind.AGED_OUT);
    private static final double HALF = 0.5;

    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Settings.Retention kept;
    private final Clock clock;

    private final UnknownNames unknown;
    private final VisibleDefinitions visible;

    FindingsOverTime(
            DSLContext db,
            DefinitionStore definitions,
            Settings settings,
            Clock clock,
            UnknownNames unknown,
            VisibleDefinitions visible) {
        this.visible = visible;
        this.unknown = unknown;
        this.db = db;
        this.definitions = definitions;
        this.kept = settings.retention();
        this.clock = clock;
    }

    /** What one line stands for. */
    public enum By {
        RULE,
        TEAM
    }

    /**
     * @param from the first day; later than asked for if findings are not kept for that long
     * @param until today
     * @param open how many were open at the end of each day, over all lines; today: now
     */
    public record OpenFindings(
            ZoneId zone, LocalDate from, LocalDate until, List<Integer> open, List<OpenFindingsLine> lines) {}

    /**
     * @param name of the rule or the team
     * @param open at the end of each day
     * @param opened how many began in these days
     * @param cleared how many were fixed in these days
     * @param agedOut how many left their rule's date window in these days
     * @param medianSeconds half of those that cleared had been open for at most this long; null if none cleared
     * @param oldest since when the oldest of the open ones has been open; null if none is
     */
    public record OpenFindingsLine(
            String name,
            String title,
            List<Integer> open,
            int opened,
            int cleared,
            int agedOut,
            @Nullable Double medianSeconds,
            @Nullable Instant oldest) {}

    /**
     * @param rule the name of the only rule; null for all
     * @throws RefusedException if there is no such rule, or the days are too many
     */
    public OpenFindings of(int days, By by, @Nullable String rule, ZoneId zone) {
        if (days < 1 || days > MOST_DAYS) throw RefusedException.invalid("days: from 1 to " + MOST_DAYS + ".");
        var rules = rule == null
                ? visible.rules()
                : List.of(visible.rule(rule).orElseThrow(() -> unknown.of(Kind.RULE, rule)));
        var today = clock.instant().atZone(zone).toLocalDate();
        int known = Math.min(days, Math.min(kept.checks(), Math.min(kept.findings(), kept.agedOut())));
        var from = today.minusDays(known - 1L);
        var lines = new HashMap<String, Line>();
        var lineOf = new HashMap<RuleId, Line>();
        Function<Current<RuleDefinition>, String> named = each ->
                by == By.RULE ? each.definition().name() : each.definition().owner();
        for (var each : rules)
            lineOf.put(
                    each.ruleId(),
                    lines.computeIfAbsent(
                            named.apply(each),
                            line -> new Line(
                                    line, by == By.RULE ? each.definition().title() : line, known)));
        openNow(lineOf);
        moves(lineOf, from, zone);
        medians(lineOf, lines, from.atStartOfDay(zone).toInstant());
        var views = lines.values().stream()
                .filter(Line::isUsed)
                .sorted(Comparator.comparingInt((Line line) -> -line.open)
                        .thenComparing((Line line) -> -line.opened)
                        .thenComparing(line -> line.name))
                .map(Line::view)
                .toList();
        var all = IntStream.range(0, known)
                .mapToObj(day ->
                        views.stream().mapToInt(line -> line.open().get(day)).sum())
                .toList();
        return new OpenFindings(zone, from, today, all, views);
    }

    private void openNow(Map<RuleId, Line> lineOf) {
        db.select(FINDING.RULE_ID, count(), min(FINDING.OPENED_AT))
                .from(FINDING)
                .where(FINDING.STATE.eq(FindingState.OPEN))
                .groupBy(FINDING.RULE_ID)
                .forEach(row -> {
                    var line = lineOf.get(row.value1());
                    if (line != null) line.openNow(row.value2(), row.value3());
                });
    }

    /** Counted back from what is open now, so that openings before the first day need not be known. */
    private void moves(Map<RuleId, Line> lineOf, LocalDate from, ZoneId zone) {
        var quarter = floor(extract(FINDING_EVENT.SLOT, DatePart.EPOCH).div(inline(QUARTER_HOUR)));
        var known = EnumSet.copyOf(OPENINGS);
        known.addAll(ENDINGS);
        var start = from.atStartOfDay(zone).toInstant();
        db.select(FINDING.RULE_ID, quarter, FINDING_EVENT.KIND, count())
                .from(FINDING_EVENT)
                .join(FINDING)
                .on(FINDING.ID.eq(FINDING_EVENT.FINDING_ID))
                .where(FINDING_EVENT.AT.ge(start), FINDING_EVENT.SLOT.ge(start), FINDING_EVENT.KIND.in(known))
                .groupBy(FINDING.RULE_ID, quarter, FINDING_EVENT.KIND)
                .forEach(row -> {
                    var line = lineOf.get(row.value1());
                    var day = Instant.ofEpochSecond(row.value2().longValue() * QUARTER_HOUR)
                            .atZone(zone)
                            .toLocalDate();
                    int at = (int) (day.toEpochDay() - from.toEpochDay());
                    if (line != null) line.moved(at, row.value3(), row.value4());
                });
    }

    private void medians(Map<RuleId, Line> lineOf, Map<String, Line> lines, Instant start) {
        var parts = lineOf.entrySet().stream()
                .filter(each -> each.getValue().cleared > 0)
                .map(each -> row(each.getKey().value(), each.getValue().name))
                .toArray(size -> newRows(size));
        if (parts.length == 0) return;
        var part = values(parts).as("part", "rule_id", "line");
        var line = part.field("line", String.class);
        var began = FINDING_EVENT.as("began");
        var beginning = lateral(select(began.SLOT)
                        .from(began)
                        .where(
                                began.FINDING_ID.eq(FINDING_EVENT.FINDING_ID),
                                began.ID.lt(FINDING_EVENT.ID),
                                began.KIND.in(BEGINNINGS))
                        .orderBy(began.ID.desc())
                        .limit(1))
                .as("beginning");
        Field<BigDecimal> seconds = extract(
                        FINDING_EVENT.SLOT.minus(beginning.field(name("slot"), Instant.class)), DatePart.EPOCH)
                .cast(SQLDataType.NUMERIC);
        db.select(line, percentileCont(HALF).withinGroupOrderBy(seconds))
                .from(FINDING_EVENT)
                .join(FINDING)
                .on(FINDING.ID.eq(FINDING_EVENT.FINDING_ID))
                .join(part)
                .on(FINDING.RULE_ID.coerce(SQLDataType.UUID).eq(part.field("rule_id", SQLDataType.UUID)))
                .join(beginning)
                .on(trueCondition())
                .where(
                        FINDING_EVENT.AT.ge(start),
                        FINDING_EVENT.SLOT.ge(start),
                        FINDING_EVENT.KIND.eq(FindingEventKind.CLEARED))
                .groupBy(line)
                .forEach(row -> {
                    var found = lines.get(row.value1());
                    if (found != null && row.value2() != null)
                        found.medianSeconds = row.value2().doubleValue();
                });
    }

    @SuppressWarnings({"unchecked", "rawtypes"})
    private static Row2<UUID, String>[] newRows(int size) {
        return new Row2[size];
    }

    /** What is counted of one line. */
    private static final class Line {
        private final String name;
        private final String title;
        private final int[] change;
        private int open;
        private int opened;
        private int cleared;
        private int agedOut;
        private @Nullable Double medianSeconds;
        private @Nullable Instant oldest;

        Line(String name, String title, int days) {
            this.name = name;
            this.title = title;
            this.change = new int[days];
        }

        void openNow(int count, Instant since) {
            open += count;
            if (oldest == null || since.isBefore(oldest)) oldest = since;
        }

        void moved(int day, FindingEventKind kind, int count) {
            if (BEGINNINGS.contains(kind)) opened += count;
            if (kind == FindingEventKind.CLEARED) cleared += count;
            if (kind == FindingEventKind.AGED_OUT) agedOut += count;
            // A slot after midnight elsewhere is still of today.
            change[Math.clamp(day, 0, change.length - 1)] += OPENINGS.contains(kind) ? count : -count;
        }

        boolean isUsed() {
            return open > 0 || opened > 0 || cleared > 0 || agedOut > 0;
        }

        OpenFindingsLine view() {
            var ends = new Integer[change.length];
            int left = open;
            for (int day = change.length - 1; day >= 0; day--) {
                ends[day] = Math.max(0, left);
                left -= change[day];
            }
            return new OpenFindingsLine(name, title, List.of(ends), opened, cleared, agedOut, medianSeconds, oldest);
        }
    }
}
