package dev.oddsentry.service.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RunningService;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Each address of the console's map opens the console, also when somebody reloads it or follows a link from a message. */
class ConsolePagesTest {
    private static final Pattern ROUTE = Pattern.compile("path=\"(/[^\"]+)\"|pathname === '(/[a-z]+)'");

    private final HttpApi browser = HttpApi.stranger(RunningService.get().baseUrl());

    static Stream<String> addresses() throws IOException {
        String map = Files.readString(Path.of("..", "console", "src", "app", "App.tsx"));
        return ROUTE.matcher(map)
                .results()
                .map(route -> route.group(1) == null ? route.group(2) : route.group(1))
                .map(route -> route.replaceAll(":[a-z]+", "skerry-1"));
    }

    @ParameterizedTest
    @MethodSource("addresses")
    void addressOpensTheConsole(String address) {
        var answer = browser.send("GET", address, null, Map.of("Accept", "text/html"));
        assertThat(answer.status()).isEqualTo(200);
        assertThat(answer.text()).contains("<div id=\"root\">");
    }
}
