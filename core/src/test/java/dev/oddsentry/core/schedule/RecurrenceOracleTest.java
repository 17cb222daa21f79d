package dev.oddsentry.core.schedule;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Thousands of random recurrences around clock changes, against another implementation: Debian's python3-dateutil. */
class RecurrenceOracleTest {
    private static final int CASES = Integer.getInteger("odd.recurrences", 5200);
    private static final List<String> ZONES = List.of(
            "Europe/Oslo",
            "Europe/Oslo",
            "America/New_York",
            "Australia/Lord_Howe",
            "Australia/Sydney",
            "America/Sao_Paulo",
            "Pacific/Apia",
            "Asia/Kathmandu",
            "UTC");
    /** The days around which dates are asked for: changes of clocks, and ends of months and years. */
    private static final List<String> NEAR = List.of(
            "2026-03-29",
            "2026-10-25",
            "2025-03-30",
            "2024-10-27",
            "2026-03-08",
            "2026-11-01",
            "2026-04-05",
            "2025-10-05",
            "2017-10-15",
            "2018-02-18",
            "2011-12-30",
            "2024-02-29",
            "2025-12-31",
            "2027-01-01");

    private static final List<String> DAYS = List.of("MO", "TU", "WE", "TH", "FR", "SA", "SU");

    @TempDir
    Path folder;

    private record Case(String rule, LocalDateTime start, String zone, long after) {
        String line() {
            return rule + "\t" + start + "\t" + zone + "\t" + after + "\t" + ahead();
        }

        /** In days: the search of both ends there. */
        int ahead() {
            return switch (rule.substring("FREQ=".length(), end())) {
                case "YEARLY" -> 366 * 12;
                case "MONTHLY" -> 366 * 4;
                case "WEEKLY" -> 366 * 2;
                case "DAILY" -> 366;
                case "HOURLY" -> 20;
                default -> 6;
            };
        }

        /** About where neither looks on, one of them may have looked a little further. */
        boolean isAtTheEnd(String theirs) {
            return !isAnswer(theirs)
                    || !theirs.equals("-") && Long.parseLong(theirs) >= after + (ahead() - 1) * 86_400L;
        }

        /**
         * The other one cuts the first week of a rule at its start before it counts positions in it; the standard counts in the whole week.
         * What it finds there more or less also moves the end of a rule with a count.
         */
        boolean countsInACutWeek() {
            return rule.startsWith("FREQ=WEEKLY")
                    && rule.contains("BYSETPOS")
                    && (rule.contains("COUNT")
                            || after
                                    < start.atZone(ZoneId.of(zone)).plusWeeks(1).toEpochSecond());
        }

        static boolean isAnswer(String theirs) {
            return !theirs.equals("?");
        }

        private int end() {
            int end = rule.indexOf(';');
            return end < 0 ? rule.length() : end;
        }

        String answer() {
            return Recurrence.of(rule, start, ZoneId.of(zone))
                    .nextAfter(Instant.ofEpochSecond(after))
                    .filter(next -> next.getEpochSecond() < after + (ahead() - 1) * 86_400L)
                    .map(next -> String.valueOf(next.getEpochSecond()))
                    .orElse("-");
        }
    }

    @Test
    void nextDatesAreThoseOfAnotherImplementation() throws IOException, InterruptedException {
        long seed = Long.getLong("odd.seed", System.nanoTime());
        var random = new Random(seed);
        var cases = Stream.generate(() -> aCase(random)).limit(CASES).toList();
        var answers = theirAnswers(cases);
        assertThat(answers).hasSize(CASES);
        assertThat(answers.stream().filter(Case::isAnswer).count())
                .as("answered")
                .isGreaterThan(CASES * 9 / 10);
        var differing = new ArrayList<String>();
        for (int i = 0; i < CASES; i++) {
            String ours = cases.get(i).answer();
            var one = cases.get(i);
            if (!ours.equals(answers.get(i)) && !one.isAtTheEnd(answers.get(i)) && !one.countsInACutWeek())
                differing.add(one + ": " + words(ours) + ", not " + words(answers.get(i)));
        }
        assertThat(differing).as("seed %d", seed).isEmpty();
    }

    private static String words(String answer) {
        return answer.equals("-")
                ? "none"
                : Instant.ofEpochSecond(Long.parseLong(answer)).toString();
    }

    private List<String> theirAnswers(List<Case> cases) throws IOException, InterruptedException {
        Path asked = folder.resolve("asked");
        Path answered = folder.resolve("answered");
        Files.writeString(asked, cases.stream().map(Case::line).collect(Collectors.joining("\n", "", "\n")));
        Path script = folder.resolve("recurrences.py");
        try (var source = getClass().getResourceAsStream("/recurrences.py")) {
            Files.write(script, source.readAllBytes());
        }
        // Debian's own Python, which has Debian's packages, whichever another one comes first.
        var process = new ProcessBuilder("/usr/bin/python3", script.toString())
                .redirectInput(asked.toFile())
                .redirectOutput(answered.toFile())
                .redirectError(folder.resolve("errors").toFile())
                .start();
        int ended = process.waitFor();
        assertThat(ended).as(Files.readString(folder.resolve("errors"))).isZero();
        return Files.readAllLines(answered, StandardCharsets.UTF_8);
    }

    private static Case aCase(Random random) {
        String frequency = one(
                random,
                List.of("YEARLY", "MONTHLY", "MONTHLY", "WEEKLY", "WEEKLY", "DAILY", "DAILY", "HOURLY", "MINUTELY"));
        boolean finer = frequency.equals("HOURLY") || frequency.equals("MINUTELY");
        var near = LocalDateTime.parse(one(random, NEAR) + "T00:00");
        // Another implementation walks on the local clock there, which repeats or skips hours.
        String zone = finer ? one(random, List.of("UTC", "Asia/Kathmandu")) : one(random, ZONES);
        int before = finer ? random.nextInt(6) : random.nextInt(frequency.equals("DAILY") ? 200 : 900);
        var start = near.minusDays(before)
                .plusMinutes(random.nextInt(4) == 0 ? random.nextInt(1440) : 60 + random.nextInt(24) * 5L);
        var asked = near.plusMinutes(random.nextInt(4 * 1440) - 2 * 1440L);
        String rule = "FREQ=" + frequency + parts(frequency, start, near, random);
        return new Case(rule, start, zone, asked.atZone(ZoneId.of(zone)).toEpochSecond());
    }

    private static String parts(String frequency, LocalDateTime start, LocalDateTime near, Random random) {
        var rule = new StringBuilder();
        if (random.nextInt(2) == 0)
            rule.append(";INTERVAL=").append(1 + random.nextInt(frequency.equals("MINUTELY") ? 90 : 5));
        switch (random.nextInt(6)) {
            case 0 -> rule.append(";COUNT=").append(1 + random.nextInt(300));
            case 1 ->
                rule.append(";UNTIL=")
                        .append(near.plusHours(random.nextInt(200)).toString().replaceAll("[-:]", ""))
                        .append("00");
            default -> {}
        }
        boolean any = false;
        boolean yearly = frequency.equals("YEARLY");
        boolean numbered = yearly || frequency.equals("MONTHLY");
        boolean weeks = yearly && random.nextInt(5) == 0;
        if (random.nextInt(4) == 0) {
            rule.append(";BYMONTH=").append(numbers(random, 12, false));
            any = true;
        }
        // Counted from the end, week 1 is -52 or -53: the other implementation then misses its days in December, which
        // it gives for 1.
        if (weeks)
            rule.append(";BYWEEKNO=")
                    .append(numbers(random, 53, true).replace("-53", "-50").replace("-52", "-51"));
        if (weeks || random.nextInt(3) == 0) {
            rule.append(";BYDAY=").append(days(random, numbered && !weeks, yearly));
            any = true;
        }
        if (random.nextInt(numbered ? 3 : 8) == 0) {
            rule.append(";BYMONTHDAY=").append(numbers(random, 31, true));
            any = true;
        }
        if (yearly && random.nextInt(6) == 0) {
            rule.append(";BYYEARDAY=").append(numbers(random, 366, true));
            any = true;
        }
        if (random.nextInt(4) == 0) {
            rule.append(";BYHOUR=").append(hours(random));
            any = true;
        }
        if (random.nextInt(5) == 0) {
            rule.append(";BYMINUTE=").append(minutes(random));
            any = true;
        }
        // Of one date a step, others than the first are never there, and the other implementation would search for
        // them.
        boolean several = numbered || frequency.equals("WEEKLY");
        if (any && several && random.nextInt(4) == 0) rule.append(";BYSETPOS=").append(numbers(random, 4, true));
        if (random.nextInt(4) == 0) rule.append(";WKST=").append(one(random, DAYS));
        return rule.toString();
    }

    private static String numbers(Random random, int most, boolean fromEnd) {
        return Stream.generate(() -> (1 + random.nextInt(most)) * (fromEnd && random.nextInt(3) == 0 ? -1 : 1))
                .limit(1 + random.nextInt(3))
                .distinct()
                .map(String::valueOf)
                .collect(Collectors.joining(","));
    }

    /** All with a number, or none: the other implementation wants both to be so where the standard wants either. */
    private static String days(Random random, boolean mayBeNumbered, boolean yearly) {
        boolean numbered = mayBeNumbered && random.nextInt(3) == 0;
        return Stream.generate(() -> (numbered ? number(random, yearly ? 20 : 5) : "") + one(random, DAYS))
                .limit(1 + random.nextInt(4))
                .distinct()
                .collect(Collectors.joining(","));
    }

    private static String number(Random random, int most) {
        return (random.nextBoolean() ? "" : "-") + (1 + random.nextInt(most));
    }

    private static String hours(Random random) {
        return Stream.generate(() -> random.nextInt(3) == 0 ? random.nextInt(24) : random.nextInt(4))
                .limit(1 + random.nextInt(3))
                .distinct()
                .map(String::valueOf)
                .collect(Collectors.joining(","));
    }

    private static String minutes(Random random) {
        return Stream.generate(() -> random.nextInt(12) * 5)
                .limit(1 + random.nextInt(3))
                .distinct()
                .map(String::valueOf)
                .collect(Collectors.joining(","));
    }

    private static <T> T one(Random random, List<T> of) {
        return of.get(random.nextInt(of.size()));
    }
}
