package dev.oddsentry.service.db;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PagePlaceTest {
    private static final UUID ID = UUID.fromString("6f1c0a52-7c0e-4a53-9d0c-0d4f5a2b6c11");

    @ParameterizedTest
    @ValueSource(strings = {"2026-11-24T04:40:00.123456Z", "1970-01-01T00:00:00Z", "9999-12-31T23:59:59Z"})
    void codeLeadsBackToThePlace(String at) {
        var place = new PagePlace(Instant.parse(at), ID);
        assertThat(PagePlace.read(place.code())).contains(place);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "1",
                "-1-6f1c0a52-7c0e-4a53-9d0c-0d4f5a2b6c11",
                "1-6f1c",
                "1-' or 1=1",
                "99999999999999999999-6f1c"
            })
    void otherTextsAreNoPlace(String code) {
        assertThat(PagePlace.read(code)).isEmpty();
    }

    @Test
    void lastPageHasNoNext() {
        var place = new PagePlace(Instant.EPOCH, ID);
        assertThat(PagePlace.next(List.of(1, 2), 3, _ -> place)).isNull();
        assertThat(PagePlace.next(List.<Integer>of(), 3, _ -> place)).isNull();
        assertThat(PagePlace.next(List.of(1, 2, 3), 3, _ -> place)).isEqualTo("0-" + ID);
    }
}
