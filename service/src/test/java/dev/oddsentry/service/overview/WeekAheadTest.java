package dev.oddsentry.service.overview;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** The checks of a week by hour, also where clocks change in it. */
class WeekAheadTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);

    private void scheduled(String start, String recur) {
        sailings.schedule("schedule: { start: " + start + ", recur: " + recur + " }")
                .active();
    }

    private JsonNode week(String first, String zone) {
        return api.get("/api/week?first=" + first + "&zone=" + zone);
    }

    /** Of this test's rule alone, since others are checked in the same service. */
    private List<JsonNode> own(JsonNode hour) {
        return StreamSupport.stream(hour.path("rules").spliterator(), false)
                .filter(rule -> rule.path("rule").asString().equals(sailings.name))
                .toList();
    }

    @ParameterizedTest(name = "the week of {0} in {1} has {2} hours")
    @CsvSource({
        "2027-03-15, Europe/Oslo, 168",
        "2027-03-22, Europe/Oslo, 167",
        "2027-10-25, Europe/Oslo, 169",
        "2027-03-29, Australia/Lord_Howe, 169",
        "2027-09-27, Australia/Lord_Howe, 168"
    })
    void everyHourOfTheWeekIsThereAndEveryCheckInOneOfThem(String first, String zone, int hours) {
        scheduled("2027-01-01T02:30", "FREQ=DAILY");
        var week = week(first, zone);
        assertThat(week.path("hours")).hasSize(hours);
        Instant until =
                LocalDate.parse(first).plusDays(7).atStartOfDay(ZoneId.of(zone)).toInstant();
        assertThat(Instant.parse(week.path("until").asString())).isEqualTo(until);
        var found = new ArrayList<Instant>();
        for (int i = 0; i < hours; i++) {
            var hour = week.path("hours").path(i);
            Instant begins = Instant.parse(hour.path("from").asString());
            Instant ends = i + 1 == hours
                    ? until
                    : Instant.parse(week.path("hours").path(i + 1).path("from").asString());
            for (var rule : own(hour)) {
                Instant at = Instant.parse(rule.path("at").asString());
                assertThat(at).isAfterOrEqualTo(begins).isBefore(ends);
                found.add(at);
            }
        }
        assertThat(found).hasSize(7);
    }

    @ParameterizedTest
    @CsvSource({
        "first=%2B999999999-12-31&zone=UTC, first: a day of the last or the next 10 years, 422",
        "first=-999999999-01-01&zone=UTC, first: a day of the last or the next 10 years, 422",
        "first=yesterday&zone=UTC, yesterday, 400",
        "first=2027-01-04&zone=Nowhere, Nowhere, 400",
        "first=2027-01-04, zone, 400"
    })
    void aDayOrAZoneThatIsNoneIsRefused(String asked, String words, int status) {
        var answer = api.send("GET", "/api/week?" + asked, "", Map.of());
        assertThat(answer.status()).isEqualTo(status);
        assertThat(answer.text()).contains(words);
    }

    @Test
    void severalChecksOfAnHourAreCounted() {
        scheduled("2027-01-04T06:00", "FREQ=MINUTELY;INTERVAL=20;BYHOUR=6");
        var hours = week("2027-01-04", "Europe/Oslo").path("hours");
        var six = own(hours.path(6));
        assertThat(six).hasSize(1);
        assertThat(six.getFirst().path("checks").asInt()).isEqualTo(3);
        assertThat(own(hours.path(7))).isEmpty();
    }

    @Test
    void aPausedRuleIsNotCheckedAndSentMailCounts() {
        scheduled("2027-01-04T06:00", "FREQ=DAILY");
        sailings.late("SK-1", 20);
        api.check(sailings.name);
        new Mails(service).sent(sailings.recipient, 1);
        var now = Instant.now().truncatedTo(ChronoUnit.HOURS);
        var week = week(now.atZone(ZoneId.of("UTC")).toLocalDate().toString(), "UTC");
        var hour = StreamSupport.stream(week.path("hours").spliterator(), false)
                .filter(each -> each.path("from").asString().equals(now.toString()))
                .findFirst()
                .orElseThrow();
        assertThat(hour.path("messages").asDouble()).isGreaterThanOrEqualTo(0.25);
        api.post("/api/rules/" + sailings.name + "/pause", "");
        assertThat(own(week("2027-01-04", "Europe/Oslo").path("hours").path(6))).isEmpty();
    }
}
