package dev.oddsentry.cli.client;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.cli.common.ExitStatus;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ApiExceptionTest {
    @ParameterizedTest
    @CsvSource({"401,3", "403,3", "503,3", "404,1", "409,1", "500,1"})
    void unreachableAndForbiddenHaveAnExitStatusOfTheirOwn(int status, int exit) {
        var refused = new ApiException(status, "Not now.", List.of());
        assertThat(ExitStatus.of(refused)).isEqualTo(exit);
        assertThat(refused).hasMessage("Not now.");
    }
}
