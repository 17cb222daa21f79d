package dev.oddsentry.core.schedule;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TimeLimitTest {
    @ParameterizedTest
    @CsvSource({
        // seconds of the good checks, time-outs since, limit in seconds under a ceiling of an hour
        "1 2 3 4,                          0, 3600",
        "1 2 3 4 5,                        0, 60",
        "30 30 30 30 30,                   0, 150",
        "30 30 30 30 400,                  0, 2000",
        "10 10 10 10 10 10 10 10 10 10 10 10 10 10 10 10 10 10 10 500, 0, 500",
        "30 30 30 30 30,                   1, 300",
        "30 30 30 30 30,                   3, 1200",
        "30 30 30 30 30,                   9, 3600",
        "30 30 30 30 30,                   90, 3600",
    })
    void isLearnedFromGoodChecksAndDoublesAfterEachTimeOut(String seconds, int timeOuts, long limit) {
        var good = Stream.of(seconds.split(" "))
                .map(each -> Duration.ofSeconds(Long.parseLong(each)))
                .toList();
        assertThat(TimeLimit.learned(good, timeOuts, Duration.ofHours(1))).isEqualTo(Duration.ofSeconds(limit));
    }
}
