package dev.oddsentry.service.config;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

/** How long a server that fails is left alone. */
class ServerRestTest {
    private final AtomicLong nanos = new AtomicLong();
    private final ServerRest rest = new ServerRest(Duration.ofSeconds(10), Duration.ofMinutes(5), 2, nanos::get);

    private void fail() {
        assertThat(rest.begin()).isTrue();
        rest.ended(false);
    }

    private void pass(Duration time) {
        nanos.addAndGet(time.toNanos());
    }

    @Test
    void pausesGrowAndEndWithTheFirstAnswer() {
        fail();
        assertThat(rest.closedFor()).isEqualTo(Duration.ofSeconds(10));
        assertThat(rest.begin()).isFalse();
        pass(Duration.ofSeconds(10));
        fail();
        assertThat(rest.closedFor()).isEqualTo(Duration.ofSeconds(20));
        pass(Duration.ofSeconds(20));
        assertThat(rest.begin()).isTrue();
        rest.ended(true);
        assertThat(rest.closedFor()).isZero();
    }

    @Test
    void pausesAreNeverLongerThanFiveMinutes() {
        for (int i = 0; i < 40; i++) {
            fail();
            assertThat(rest.closedFor()).isLessThanOrEqualTo(Duration.ofMinutes(5));
            pass(rest.closedFor());
        }
    }

    @Test
    void oneConversationTriesAServerThatFailed() {
        fail();
        pass(Duration.ofSeconds(10));
        assertThat(rest.begin()).isTrue();
        assertThat(rest.begin()).as("the others wait for how that ends").isFalse();
        rest.ended(true);
        assertThat(rest.begin()).isTrue();
        assertThat(rest.begin()).isTrue();
    }

    @Test
    void aConversationThatBeginsInAnyCaseEndsThePauseWhereItIsAnswered() {
        fail();
        rest.beginAnyway();
        assertThat(rest.begin()).isFalse();
        rest.ended(true);
        assertThat(rest.begin()).isTrue();
    }

    @Test
    void severalThatFailTogetherAreOneFailure() {
        assertThat(rest.begin()).isTrue();
        assertThat(rest.begin()).isTrue();
        assertThat(rest.begin()).as("no more than two at once").isFalse();
        rest.ended(false);
        rest.ended(false);
        assertThat(rest.closedFor()).isEqualTo(Duration.ofSeconds(10));
    }
}
