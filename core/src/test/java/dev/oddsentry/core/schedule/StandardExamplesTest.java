package dev.oddsentry.core.schedule;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The examples of RFC 5545, section 3.8.5.3, all in New York, at 09:00 unless the rule says otherwise. */
class StandardExamplesTest {
    private static final ZoneId NEW_YORK = ZoneId.of("America/New_York");

    /** Dates are month and day of 1997, or with their year; times only where they are not 09:00. */
    @ParameterizedTest(name = "{0} from {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "FREQ=DAILY;COUNT=10 | 1997-09-02 | 09-02 09-03 09-04 09-05 09-06 09-07 09-08 09-09 09-10 09-11 end",
                "FREQ=DAILY;INTERVAL=10;COUNT=5 | 1997-09-02 | 09-02 09-12 09-22 10-02 10-12 end",
                "FREQ=YEARLY;UNTIL=20000131T140000Z;BYMONTH=1;BYDAY=SU,MO,TU,WE,TH,FR,SA | 1998-01-01 | 1998-01-01 1998-01-02 1998-01-03 1998-01-04",
                "FREQ=DAILY;UNTIL=20000131T140000Z;BYMONTH=1 | 1998-01-01 | 1998-01-01 1998-01-02 1998-01-03 1998-01-04",
                "FREQ=WEEKLY;COUNT=10 | 1997-09-02 | 09-02 09-09 09-16 09-23 09-30 10-07 10-14 10-21 10-28 11-04 end",
                "FREQ=WEEKLY;UNTIL=19971224T000000Z | 1997-12-09 | 12-09 12-16 12-23 end",
                "FREQ=WEEKLY;INTERVAL=2;WKST=SU | 1997-09-02 | 09-02 09-16 09-30 10-14 10-28 11-11 11-25 12-09 12-23 1998-01-06",
                "FREQ=WEEKLY;COUNT=10;WKST=SU;BYDAY=TU,TH | 1997-09-02 | 09-02 09-04 09-09 09-11 09-16 09-18 09-23 09-25 09-30 10-02 end",
                "FREQ=WEEKLY;INTERVAL=2;UNTIL=19971224T000000Z;WKST=SU;BYDAY=MO,WE,FR | 1997-09-01 | 09-01 09-03 09-05 09-15 09-17 09-19 09-29 10-01 10-03 10-13",
                "FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH | 1997-09-02 | 09-02 09-04 09-16 09-18 09-30 10-02 10-14 10-16 end",
                "FREQ=MONTHLY;COUNT=10;BYDAY=1FR | 1997-09-05 | 09-05 10-03 11-07 12-05 1998-01-02 1998-02-06 1998-03-06 1998-04-03 1998-05-01 1998-06-05 end",
                "FREQ=MONTHLY;UNTIL=19971224T000000Z;BYDAY=1FR | 1997-09-05 | 09-05 10-03 11-07 12-05 end",
                "FREQ=MONTHLY;INTERVAL=2;COUNT=10;BYDAY=1SU,-1SU | 1997-09-07 | 09-07 09-28 11-02 11-30 1998-01-04 1998-01-25 1998-03-01 1998-03-29 1998-05-03 1998-05-31 end",
                "FREQ=MONTHLY;COUNT=6;BYDAY=-2MO | 1997-09-22 | 09-22 10-20 11-17 12-22 1998-01-19 1998-02-16 end",
                "FREQ=MONTHLY;BYMONTHDAY=-3 | 1997-09-28 | 09-28 10-29 11-28 12-29 1998-01-29 1998-02-26",
                "FREQ=MONTHLY;COUNT=10;BYMONTHDAY=2,15 | 1997-09-02 | 09-02 09-15 10-02 10-15 11-02 11-15 12-02 12-15 1998-01-02 1998-01-15 end",
                "FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1 | 1997-09-30 | 09-30 10-01 10-31 11-01 11-30 12-01 12-31 1998-01-01 1998-01-31 1998-02-01 end",
                "FREQ=MONTHLY;INTERVAL=18;COUNT=10;BYMONTHDAY=10,11,12,13,14,15 | 1997-09-10 | 09-10 09-11 09-12 09-13 09-14 09-15 1999-03-10 1999-03-11 1999-03-12 1999-03-13 end",
                "FREQ=MONTHLY;INTERVAL=2;BYDAY=TU | 1997-09-02 | 09-02 09-09 09-16 09-23 09-30 11-04 11-11 11-18 11-25 1998-01-06",
                "FREQ=YEARLY;COUNT=10;BYMONTH=6,7 | 1997-06-10 | 06-10 07-10 1998-06-10 1998-07-10 1999-06-10 1999-07-10 2000-06-10 2000-07-10 2001-06-10 2001-07-10 end",
                "FREQ=YEARLY;INTERVAL=2;COUNT=10;BYMONTH=1,2,3 | 1997-03-10 | 03-10 1999-01-10 1999-02-10 1999-03-10 2001-01-10 2001-02-10 2001-03-10 2003-01-10 2003-02-10 2003-03-10 end",
                "FREQ=YEARLY;INTERVAL=3;COUNT=10;BYYEARDAY=1,100,200 | 1997-01-01 | 01-01 04-10 07-19 2000-01-01 2000-04-09 2000-07-18 2003-01-01 2003-04-10 2003-07-19 2006-01-01 end",
                "FREQ=YEARLY;BYDAY=20MO | 1997-05-19 | 05-19 1998-05-18 1999-05-17",
                "FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO | 1997-05-12 | 05-12 1998-05-11 1999-05-17",
                "FREQ=YEARLY;BYMONTH=3;BYDAY=TH | 1997-03-13 | 03-13 03-20 03-27 1998-03-05 1998-03-12 1998-03-19 1998-03-26 1999-03-04",
                "FREQ=YEARLY;BYDAY=TH;BYMONTH=6,7,8 | 1997-06-05 | 06-05 06-12 06-19 06-26 07-03 07-10 07-17 07-24 07-31 08-07",
                "FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13 | 1997-09-02 | 1998-02-13 1998-03-13 1998-11-13 1999-08-13 2000-10-13",
                "FREQ=MONTHLY;BYDAY=SA;BYMONTHDAY=7,8,9,10,11,12,13 | 1997-09-13 | 09-13 10-11 11-08 12-13 1998-01-10 1998-02-07 1998-03-07",
                "FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8 | 1996-11-05 | 1996-11-05 2000-11-07 2004-11-02",
                "FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3 | 1997-09-04 | 09-04 10-07 11-06 end",
                "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2 | 1997-09-29 | 09-29 10-30 11-27 12-30 1998-01-29 1998-02-26 1998-03-30",
                "FREQ=HOURLY;INTERVAL=3;UNTIL=19970902T170000Z | 1997-09-02 | 09-02T09:00 09-02T12:00 end",
                "FREQ=MINUTELY;INTERVAL=15;COUNT=6 | 1997-09-02 | 09-02T09:00 09-02T09:15 09-02T09:30 09-02T09:45 09-02T10:00 09-02T10:15 end",
                "FREQ=MINUTELY;INTERVAL=90;COUNT=4 | 1997-09-02 | 09-02T09:00 09-02T10:30 09-02T12:00 09-02T13:30 end",
                "FREQ=DAILY;BYHOUR=9,10,11,12,13,14,15,16;BYMINUTE=0,20,40 | 1997-09-02 | 09-02T09:00 09-02T09:20 09-02T09:40 09-02T10:00",
                "FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO | 1997-08-05 | 08-05 08-10 08-19 08-24 end",
                "FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU | 1997-08-05 | 08-05 08-17 08-19 08-31 end",
                "FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5 | 2007-01-15 | 2007-01-15 2007-01-30 2007-02-15 2007-03-15 2007-03-30 end",
            })
    void givesItsDates(String rule, String start, String dates) {
        var from = LocalDateTime.parse(start + "T09:00");
        var recurrence = Recurrence.of(rule, from, NEW_YORK);
        boolean ends = dates.endsWith(" end");
        var expected = List.of(dates.replace(" end", "").split(" ")).stream()
                .map(date -> full(date))
                .collect(Collectors.toList());
        Instant before = from.atZone(NEW_YORK).toInstant().minusSeconds(1);
        var found = new Schedule(List.of(recurrence), null)
                .next(expected.size() + (ends ? 1 : 0), before).stream()
                        .map(slot -> slot.atZone(NEW_YORK).toLocalDateTime())
                        .toList();
        assertThat(found).isEqualTo(expected);
    }

    private static LocalDateTime full(String date) {
        String withYear = date.matches("\\d{4}-.*") ? date : "1997-" + date;
        return LocalDateTime.parse(withYear.contains("T") ? withYear : withYear + "T09:00");
    }
}
