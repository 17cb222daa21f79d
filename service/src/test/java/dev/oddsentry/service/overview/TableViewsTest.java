package dev.oddsentry.service.overview;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.RunningService;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class TableViewsTest {
    private final RunningService service = RunningService.get();

    private String refusal(String table, String body) {
        return service.api()
                .send("PUT", "/api/table-views/" + table, body, Map.of("Content-Type", "application/json"))
                .text();
    }

    @Test
    void aTableIsSeenAsItWasChosenUntilItIsTakenBack() {
        service.api()
                .put(
                        "/api/table-views/query:køer",
                        Map.of("hidden", List.of("label æ", "state"), "widths", Map.of("planned", 180)));
        service.api().put("/api/table-views/rules", Map.of("hidden", List.of(), "widths", Map.of()));
        service.api().put("/api/table-views/rules", Map.of("hidden", List.of("next"), "widths", Map.of()));
        assertThat(service.api().get("/api/table-views").toString())
                .isEqualTo(
                        "[{\"table\":\"query:køer\",\"hidden\":[\"label æ\",\"state\"],\"widths\":{\"planned\":180}},"
                                + "{\"table\":\"rules\",\"hidden\":[\"next\"],\"widths\":{}}]");
        service.api().delete("/api/table-views/rules");
        service.api().delete("/api/table-views/query:køer");
        assertThat(service.api().get("/api/table-views").isEmpty()).isTrue();
    }

    @Test
    void widthsThatNobodyCouldReadAreRefused() {
        assertThat(refusal("rules", "{\"hidden\":[],\"widths\":{\"state\":3}}"))
                .contains("must be greater than or equal to 40");
        assertThat(refusal("rules", "{\"hidden\":[],\"widths\":{\"state\":\"wide\"}}"))
                .contains("widths.state");
        assertThat(refusal("rules", "{\"widths\":{}}")).contains("hidden");
        assertThat(refusal("rules", "{\"hidden\":[\"a\\u0000b\"],\"widths\":{}}"))
                .contains("\"status\":4");
    }
}
