package dev.oddsentry.service;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;

/** One node of the service. Any number may run on one database. */
@SpringBootApplication
@ConfigurationPropertiesScan
public class OddSentryService {

    public static void main(String[] arguments) {
        SpringApplication.run(OddSentryService.class, arguments);
    }
}
