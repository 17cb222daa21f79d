package dev.oddsentry.service.config;

import org.flywaydb.core.api.exception.FlywayValidateException;
import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;
import org.springframework.boot.flyway.autoconfigure.FlywayConfigurationCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Records of a newer version, or that someone changed by hand, stop the start: this version would write what the other does not understand. */
@Configuration
class RecordsVersion {

    /** By default a version that is not known here is passed over. */
    @Bean
    FlywayConfigurationCustomizer refuseNewerRecords() {
        return configuration -> configuration.ignoreMigrationPatterns(new String[0]);
    }

    /** Named in {@code META-INF/spring.factories}. */
    static final class Analyzer extends AbstractFailureAnalyzer<FlywayValidateException> {
        @Override
        protected FailureAnalysis analyze(Throwable failed, FlywayValidateException cause) {
            return new FailureAnalysis(
                    "The database holds records of a newer version of Odd Sentry, or its tables were changed by hand. "
                            + String.valueOf(cause.getMessage()).strip(),
                    "Start the version that the records are of, or restore the backup that was taken before the upgrade.",
                    failed);
        }
    }
}
