package dev.oddsentry.service.clock;

import org.springframework.boot.jdbc.autoconfigure.JdbcConnectionDetails;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The one clock of the service. */
@Configuration
class ClockConfig {

    @Bean
    TimeConnection timeConnection(JdbcConnectionDetails records) {
        return new TimeConnection(records);
    }

    @Bean
    DatabaseClock clock(TimeConnection connection) {
        return new DatabaseClock(connection);
    }
}
