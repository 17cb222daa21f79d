package dev.oddsentry.core.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

/** Calendars made at random, held against counting day by day. */
class WorkingDaysTest {
    private static final LocalDate FIRST = LocalDate.of(2026, 1, 1);
    private static final int DAYS = 730;

    private static WorkingDays calendar(Random random) {
        var week = EnumSet.noneOf(DayOfWeek.class);
        for (var day : DayOfWeek.values()) if (random.nextInt(10) < 7) week.add(day);
        week.add(DayOfWeek.of(1 + random.nextInt(7)));
        var holidays = new TreeMap<LocalDate, String>();
        var worked = new TreeSet<LocalDate>();
        for (int i = 0; i < 40; i++) {
            holidays.put(FIRST.plusDays(random.nextInt(DAYS)), "holiday " + i);
            if (i % 4 == 0) worked.add(FIRST.plusDays(random.nextInt(DAYS)));
        }
        return new WorkingDays(week, holidays, worked);
    }

    private static boolean isWorked(WorkingDays days, LocalDate date) {
        if (days.worked().contains(date)) return true;
        return days.week().contains(date.getDayOfWeek()) && !days.holidays().containsKey(date);
    }

    private static List<LocalDate> workedOf(WorkingDays days) {
        var all = new ArrayList<LocalDate>();
        for (int i = -100; i < DAYS + 100; i++) if (isWorked(days, FIRST.plusDays(i))) all.add(FIRST.plusDays(i));
        return all;
    }

    @RepeatedTest(50)
    void itsWayForwardAndBackIsTheListOfWorkedDays(RepetitionInfo repetition) {
        var random = new Random(repetition.getCurrentRepetition());
        var days = calendar(random);
        var worked = workedOf(days);
        for (int i = 0; i < 40; i++) {
            int at = 60 + random.nextInt(worked.size() - 120);
            int step = random.nextInt(40) - 20;
            assertThat(days.plus(worked.get(at), step)).isEqualTo(worked.get(at + step));
        }
    }

    @RepeatedTest(50)
    void fromAnyDayTheNextAndThePreviousWorkedOnesAreFound(RepetitionInfo repetition) {
        var random = new Random(1_000L + repetition.getCurrentRepetition());
        var days = calendar(random);
        var worked = new TreeSet<>(workedOf(days));
        for (int i = 0; i < 40; i++) {
            LocalDate date = FIRST.plusDays(random.nextInt(DAYS));
            assertThat(days.isWorkingDay(date)).isEqualTo(isWorked(days, date));
            assertThat(days.onOrAfter(date)).isEqualTo(worked.ceiling(date));
            assertThat(days.onOrBefore(date)).isEqualTo(worked.floor(date));
            assertThat(days.plus(date, 1)).isEqualTo(worked.higher(date));
            assertThat(days.plus(date, -1)).isEqualTo(worked.lower(date));
            assertThat(days.plus(date, 0)).isEqualTo(date);
        }
    }

    @RepeatedTest(50)
    void theNthOfAMonthIsCountedFromEitherEnd(RepetitionInfo repetition) {
        var days = calendar(new Random(2_000L + repetition.getCurrentRepetition()));
        for (int i = 0; i < 12; i++) {
            var month = YearMonth.of(2026, 1 + i);
            var worked = workedOf(days).stream()
                    .filter(date -> YearMonth.from(date).equals(month))
                    .toList();
            for (int number = 1; number <= worked.size(); number++) {
                assertThat(days.nthOf(month, number)).contains(worked.get(number - 1));
                assertThat(days.nthOf(month, -number)).contains(worked.get(worked.size() - number));
            }
            assertThat(days.nthOf(month, worked.size() + 1)).isEmpty();
            assertThat(days.nthOf(month, -worked.size() - 1)).isEmpty();
        }
    }

    @RepeatedTest(50)
    void periodsAreFoundFromAnyOfTheirDays(RepetitionInfo repetition) {
        var random = new Random(3_000L + repetition.getCurrentRepetition());
        var starts = new ArrayList<LocalDate>();
        for (LocalDate at = FIRST; starts.size() < 14; at = at.plusDays(20 + random.nextInt(20))) starts.add(at);
        var days = new WorkingDays(Set.of(DayOfWeek.MONDAY), new TreeMap<>(), Set.of(), new TreeSet<>(starts));
        for (int of = 0; of < starts.size() - 1; of++) {
            long length = starts.get(of + 1).toEpochDay() - starts.get(of).toEpochDay();
            LocalDate date = starts.get(of).plusDays(random.nextLong(length));
            for (int distance = -of; of + distance < starts.size(); distance++)
                assertThat(days.startOfPeriod(date, distance)).isEqualTo(starts.get(of + distance));
            int before = -of - 1;
            int after = starts.size() - of;
            assertThatThrownBy(() -> days.startOfPeriod(date, before)).isInstanceOf(InvalidDefinitionException.class);
            assertThatThrownBy(() -> days.startOfPeriod(date, after)).isInstanceOf(InvalidDefinitionException.class);
        }
    }

    @Test
    void aCalendarWithoutWorkIsSaidToHaveNone() {
        var never = new WorkingDays(Set.of(), new TreeMap<>(), Set.of());
        assertThatThrownBy(() -> never.onOrAfter(FIRST)).hasMessageContaining("no working day within");
    }

    @Test
    void theLastDateThatAnyoneEnteredIsKnown() {
        var holidays = new TreeMap<LocalDate, String>();
        assertThat(new WorkingDays(Set.of(), holidays, Set.of()).lastKnown()).isNull();
        holidays.put(FIRST, "New Year");
        assertThat(new WorkingDays(Set.of(), holidays, Set.of()).lastKnown()).isEqualTo(FIRST);
        assertThat(new WorkingDays(Set.of(), holidays, Set.of(FIRST.plusDays(9))).lastKnown())
                .isEqualTo(FIRST.plusDays(9));
    }
}
