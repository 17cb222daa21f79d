package dev.oddsentry.service.overview;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.time.Clock;
import java.time.Duration;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

class FindingsOverTimeTest {
    private static final ZoneId ZONE = ZoneId.of("Europe/Oslo");
    private static final int DAYS = 8;

    /** A simpler count of the same: which sailings are late, since which day, and how many days those fixed lasted. */
    private static final class Model {
        final LateSailings rule;
        final Map<String, Integer> since = new HashMap<>();
        final List<Integer> open = new ArrayList<>();
        final List<Integer> lasted = new ArrayList<>();
        int opened;

        Model(LateSailings rule) {
            this.rule = rule;
        }

        /** Three sailings, each another, become late or are fixed. */
        void day(int day, Random random) {
            var sailings = new ArrayList<>(List.of("SK-1", "SK-2", "SK-3", "SK-4", "SK-5", "SK-6", "SK-7", "SK-8"));
            Collections.shuffle(sailings, random);
            for (String sailing : sailings.subList(0, 3)) {
                Integer began = since.remove(sailing);
                if (began == null) {
                    rule.late(sailing, 20);
                    since.put(sailing, day);
                } else {
                    rule.change("delete from sailing_table where sailing = '" + sailing + "'");
                    lasted.add(day - began);
                }
            }
        }

        void checked(int day) {
            opened +=
                    (int) since.values().stream().filter(began -> began == day).count();
            open.add(since.size());
        }
    }

    @Test
    void eachDaysCountIsThatOfAModelThatKeepsSets() {
        try (var service = RunningService.withItsOwnTime()) {
            // Noon, so that a day of checks does not reach over midnight.
            var now = service.bean(Clock.class).instant().atZone(ZONE);
            service.pass(Duration.between(
                    now, now.toLocalDate().plusDays(1).atTime(LocalTime.NOON).atZone(ZONE)));
            var random = new Random(17);
            var fleet = new Model(new LateSailings(service));
            var crew = new Model(new LateSailings(service));
            fleet.rule.active();
            crew.rule.saved();
            service.api().push(crew.rule.rule().replace("Traffic reporting", "Crew"));
            service.api().post("/api/rules/" + crew.rule.name + "/activate", "");
            for (int day = 0; day < DAYS; day++) {
                if (day > 0) service.pass(Duration.ofDays(1));
                for (var each : List.of(fleet, crew)) {
                    each.day(day, random);
                    service.api().check(each.rule.name);
                    each.checked(day);
                }
            }

            var byRule = service.api().get("/api/findings/over-time?days=" + DAYS + "&zone=" + ZONE);
            for (var each : List.of(fleet, crew)) holds(each, line(byRule, each.rule.name));
            assertThat(numbers(byRule.path("open")))
                    .isEqualTo(IntStream.range(0, DAYS)
                            .mapToObj(day -> fleet.open.get(day) + crew.open.get(day))
                            .toList());

            holds(crew, line(service.api().get("/api/findings/over-time?by=TEAM&zone=" + ZONE), "Crew"));

            var lastThree = service.api()
                    .get("/api/findings/over-time?days=3&zone=" + ZONE + "&rule=" + crew.rule.name)
                    .path("lines");
            assertThat(lastThree.size()).isEqualTo(1);
            assertThat(numbers(lastThree.get(0).path("open"))).isEqualTo(crew.open.subList(DAYS - 3, DAYS));

            for (String other : List.of("%2B05:30", "-03:00", "UTC%2B9", "Z"))
                assertThat(service.api()
                                .get("/api/findings/over-time?days=400&zone=" + other)
                                .path("lines")
                                .size())
                        .as(other)
                        .isEqualTo(2);

            assertThat(refusal(service, "days=401")).contains("days: from 1 to 400.");
            assertThat(refusal(service, "rule=nobody")).contains("There is no rule \\\"nobody\\\".");
        }
    }

    private static void holds(Model model, JsonNode line) {
        var open = numbers(line.path("open"));
        assertThat(open.subList(open.size() - DAYS, open.size())).isEqualTo(model.open);
        assertThat(open.subList(0, open.size() - DAYS)).allMatch(none -> none == 0);
        assertThat(line.path("opened").asInt()).isEqualTo(model.opened);
        assertThat(line.path("cleared").asInt()).isEqualTo(model.lasted.size());
        var sorted = model.lasted.stream().sorted().toList();
        double median = (sorted.get((sorted.size() - 1) / 2) + sorted.get(sorted.size() / 2)) / 2.0;
        assertThat(line.path("medianSeconds").asDouble())
                .isCloseTo(median * Duration.ofDays(1).toSeconds(), within(120.0));
        assertThat(line.path("oldest").isNull()).isEqualTo(model.since.isEmpty());
    }

    private static JsonNode line(JsonNode all, String name) {
        for (var line : all.path("lines")) if (line.path("name").asString().equals(name)) return line;
        throw new AssertionError("no line of " + name + " in " + all);
    }

    private static List<Integer> numbers(JsonNode list) {
        var numbers = new ArrayList<Integer>();
        list.forEach(each -> numbers.add(each.asInt()));
        return numbers;
    }

    private static String refusal(RunningService service, String query) {
        return service.api()
                .send("GET", "/api/findings/over-time?zone=" + ZONE + "&" + query, null, Map.of())
                .text();
    }
}
