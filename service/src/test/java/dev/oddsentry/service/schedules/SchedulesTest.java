package dev.oddsentry.service.schedules;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Calendars, dates, the feed, and what becomes of missed slots. */
class SchedulesTest {
    private static final String CALENDAR = """
            kind: calendar
            name: %s
            title: Working days in Norway
            holidays: { 2027-05-17: Constitution Day, 2027-12-24: Christmas Eve }
            extra_working_days: [2027-05-15]
            """;

    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final String calendar = "norway-" + UUID.randomUUID().toString().substring(0, 8);

    private static List<String> locals(JsonNode dates) {
        return dates.path("slots")
                .valueStream()
                .map(date -> date.path("local").asString(""))
                .toList();
    }

    @Test
    void anyRecurrenceHasItsDatesWithoutARule() {
        var dates = api.get("/api/dates?recur=FREQ%3DDAILY&start=2027-03-26T02:30&zone=Europe/Oslo&count=3"
                + "&except=2027-03-27&after=2027-03-01T00:00:00Z");
        assertThat(locals(dates))
                .containsExactly("2027-03-26T02:30+01:00", "2027-03-28T03:30+02:00", "2027-03-29T02:30+02:00");
        assertThat(dates.path("schedule").asString()).isEqualTo("every day at 02:30, without 1 date");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "recur=FREQ%3DSOMETIMES | recur: ",
                "recur=FREQ%3DDAILY&zone=Europe/Olso | zone: \"Europe/Olso\" cannot be read",
                "recur=FREQ%3DDAILY&start=yesterday | start: \"yesterday\" cannot be read",
                "recur=FREQ%3DDAILY&calendar=nowhere | There is no calendar \"nowhere\"",
                "recur=FREQ%3DDAILY&onHoliday=never | write next_working_day",
            })
    void whatCannotBeReadIsSaidWithWhatWouldBeRight(String query, String words) {
        assertThat(api.send("GET", "/api/dates?" + query, null, Map.of()).text())
                .contains(words.replace("\"", "\\\""));
    }

    @Test
    void slotsMoveOffTheHolidaysOfACalendarAndFollowItsEdits() {
        api.push(CALENDAR.formatted(calendar));
        var sailings = new LateSailings(service)
                .schedule(
                        "schedule: { start: 2027-05-01T05:40, recur: FREQ=MONTHLY;BYMONTHDAY=17, working_days: [3], calendar: "
                                + calendar + ", on_holidays: next_working_day }")
                .active();
        String path = "/api/rules/" + sailings.name + "/dates?count=2&after=2027-05-06T00:00:00Z";
        assertThat(locals(api.get(path))).containsExactly("2027-05-18T05:40+02:00", "2027-06-03T05:40+02:00");
        api.push(CALENDAR.formatted(calendar).replace("2027-12-24", "2027-05-18"));
        assertThat(locals(api.get(path))).containsExactly("2027-05-19T05:40+02:00", "2027-06-03T05:40+02:00");
        assertThat(api.get("/api/calendars")
                        .valueStream()
                        .filter(each -> each.path("name").asString("").equals(calendar))
                        .map(each -> each.path("rules").path(0).asString("")))
                .containsExactly(sailings.name);
        api.post("/api/rules/" + sailings.name + "/pause", "");
    }

    @Test
    void aCalendarThatIsNotThereIsRefusedAndOneThatRunsOutIsWarnedOf() {
        String rule = new LateSailings(service)
                .schedule("schedule: { start: 2027-05-01T05:40, recur: FREQ=DAILY, calendar: " + calendar
                        + ", on_holidays: skip }")
                .saved();
        assertThat(api.pushAnswer(rule).text()).contains("there is no calendar");
        api.push("kind: calendar\nname: " + calendar + "\nholidays: { 2020-05-17: Constitution Day }\n");
        assertThat(api.push(rule).path("warnings").path(0).path("message").asString())
                .contains("names no holiday after 2020-05-17");
    }

    @Test
    void holidaysComeFromAnICalendarFile() {
        String file =
                "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\n"
                        + "DTSTART;VALUE=DATE:20280517\r\nSUMMARY:Grunnlovsdag\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
        String path = "/api/calendars/" + calendar + "/holidays.ics";
        var calendarFile = Map.of("Content-Type", "text/calendar");
        var read =
                api.send("POST", "/api/calendars/holidays", file, calendarFile).body();
        assertThat(read.path(0).path("date").asString()).isEqualTo("2028-05-17");
        assertThat(read.path(0).path("name").asString()).isEqualTo("Grunnlovsdag");
        assertThat(api.send("GET", "/api/definitions/calendar/" + calendar, null, Map.of())
                        .status())
                .as("nothing is saved by reading")
                .isEqualTo(404);
        assertThat(api.send("POST", "/api/calendars/holidays", "no calendar", calendarFile)
                        .status())
                .isEqualTo(422);
        assertThat(api.send("POST", path, file, calendarFile)
                        .body()
                        .path("revision")
                        .asInt())
                .isEqualTo(1);
        assertThat(api.send("POST", path, "no calendar", calendarFile).text()).contains("The calendar is unchanged");
        assertThat(api.send("GET", "/api/definitions/calendar/" + calendar, null, Map.of())
                        .text())
                .contains("2028-05-17: Grunnlovsdag");
    }

    @Test
    void calendarProgramsReadTheSchedulesUnderAnAddressOfTheirOwn() {
        var sailings = new LateSailings(service)
                .schedule("schedule: { start: 2026-01-01T05:40, recur: FREQ=DAILY }")
                .active();
        String address = api.post("/api/feed", "").path("address").asString();
        var anyone = new HttpApi(service.baseUrl(), null);
        String feed = anyone.send("GET", address.substring(address.indexOf("/feeds/")), null, Map.of())
                .text();
        assertThat(feed).startsWith("BEGIN:VCALENDAR").contains("SUMMARY:Check: Late sailings of " + sailings.name);
        assertThat(feed.lines()
                        .filter(line -> line.contains(sailings.name) && line.startsWith("SUMMARY"))
                        .count())
                .isBetween(58L, 61L);
        assertThat(anyone.send("GET", "/feeds/guess/schedules.ics", null, Map.of())
                        .status())
                .isEqualTo(404);
        api.send("DELETE", "/api/feed", null, Map.of());
        assertThat(anyone.send("GET", address.substring(address.indexOf("/feeds/")), null, Map.of())
                        .status())
                .isEqualTo(404);
        api.post("/api/rules/" + sailings.name + "/pause", "");
    }

    /** The rule's next slot is set back, as if nobody had run checks for the last five minutes and some. */
    @ParameterizedTest
    @CsvSource({"latest, 1, 6", "each, 6, 6", "skip, 0, 6"})
    void missedSlotsAreMadeUpForAsTheRuleSays(String missed, int checks, int slots) {
        var sailings = new LateSailings(service)
                .schedule("schedule: { start: 2026-01-01T00:00, recur: FREQ=MINUTELY, missed: " + missed + " }")
                .late("SK-1", 20)
                .active();
        String path = "/api/rules/" + sailings.name;
        Instant before = Instant.now()
                .truncatedTo(ChronoUnit.MINUTES)
                .minus(5, ChronoUnit.MINUTES)
                .minusSeconds(60);
        if (Instant.now().atZone(ZoneOffset.UTC).getSecond() > 45) before = before.plusSeconds(60);
        service.execute(
                "records",
                "update rule set next_slot = '" + before + "' where id = (select id from definition where name = '"
                        + sailings.name + "' and kind = 'RULE')");
        service.execute(
                "records",
                "update scheduled_tasks set execution_time = now() where task_name = 'slot' and task_instance ="
                        + " (select id::text from definition where name = '" + sailings.name + "' and kind = 'RULE')");
        RunningService.await(
                "all made up for",
                () -> slotsCovered(path) >= slots
                        && api.get(path + "/checks")
                                .path("checks")
                                .valueStream()
                                .noneMatch(check ->
                                        check.path("state").asString("").equals("RUNNING")));
        api.post(path + "/pause", "");
        long good = api.get(path + "/checks")
                .path("checks")
                .valueStream()
                .filter(check ->
                        List.of("FIRED", "QUIET").contains(check.path("state").asString("")))
                .count();
        // A minute may have begun meanwhile.
        assertThat(good).isBetween((long) checks, checks + 2L);
    }

    private int slotsCovered(String path) {
        return api.get(path + "/checks")
                .path("checks")
                .valueStream()
                .mapToInt(check -> check.path("slotsCovered").asInt())
                .sum();
    }
}
