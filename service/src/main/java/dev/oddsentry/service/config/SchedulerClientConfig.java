package dev.oddsentry.service.config;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import javax.sql.DataSource;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.jdbc.datasource.TransactionAwareDataSourceProxy;

/** Plans durable work through the transaction at hand, so that a task exists exactly if what it is for was committed. */
@Configuration
class SchedulerClientConfig {

    @Bean
    SchedulerClient schedulerClient(DataSource database) {
        return SchedulerClient.Builder.create(new TransactionAwareDataSourceProxy(database))
                .build();
    }
}
