package dev.oddsentry.service.access;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.web.RefusedException;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class LoginGateTest {
    private final LoginGate gate = new LoginGate();

    /** @return how many of them were looked at */
    private int guessAtOnce(int guesses, boolean ofOneName) {
        var looked = new AtomicInteger();
        try (var threads = Executors.newVirtualThreadPerTaskExecutor()) {
            var all = IntStream.range(0, guesses)
                    .mapToObj(i -> CompletableFuture.runAsync(
                            () -> {
                                try {
                                    gate.guess(ofOneName ? "ines" : "name-" + i, "192.0.2.1", Optional.empty(), () -> {
                                        looked.incrementAndGet();
                                        return Optional.empty();
                                    });
                                } catch (RefusedException tooMany) {
                                    assertThat(tooMany.status().value()).isEqualTo(429);
                                }
                            },
                            threads))
                    .toList();
            all.forEach(CompletableFuture::join);
        }
        return looked.get();
    }

    @Test
    void mostOfManyGuessesForOneNameAreRefused() {
        assertThat(guessAtOnce(200, true)).isBetween(1, 20);
    }

    @Test
    void guessesOverManyNamesFromOneAddressAreLimitedToo() {
        assertThat(guessAtOnce(400, false)).isBetween(30, 60);
    }

    @Test
    void knownDeviceDoesNotWaitForGuessesFromElsewhere() {
        guessAtOnce(200, true);
        guessAtOnce(400, false);
        assertThat(gate.guess("ines", "192.0.2.1", Optional.of("signed"), () -> Optional.of("ines")))
                .contains("ines");
    }

    @Test
    void rightPasswordEndsThePausesOfItsName() {
        for (int i = 0; i < 6; i++) gate.guess("per", "192.0.2.2", Optional.empty(), Optional::empty);
        assertThat(gate.guess("per", "192.0.2.2", Optional.empty(), () -> Optional.of("per")))
                .contains("per");
        var looked = new AtomicInteger();
        for (int i = 0; i < 3; i++)
            gate.guess("per", "192.0.2.2", Optional.empty(), () -> Optional.of(looked.incrementAndGet()));
        assertThat(looked.get()).isEqualTo(3);
    }
}
