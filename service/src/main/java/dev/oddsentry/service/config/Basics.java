package dev.oddsentry.service.config;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;

/** This node, and transactions opened in code where a use case needs them. */
@Configuration
class Basics {

    @Bean
    Node node(Settings settings) {
        return Node.of(settings);
    }

    @Bean
    TransactionTemplate transactions(PlatformTransactionManager manager) {
        return new TransactionTemplate(manager);
    }
}
