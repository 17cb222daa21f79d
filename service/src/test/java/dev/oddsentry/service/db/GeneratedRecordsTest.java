package dev.oddsentry.service.db;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.testkit.RecordGenerator;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class GeneratedRecordsTest {
    @Test
    void classesOfTablesAreThoseOfTheMigrations(@TempDir Path fresh) throws Exception {
        Path service = Path.of("").toAbsolutePath();
        assertThat(RecordGenerator.texts(RecordGenerator.kept(service)))
                .as("write them with: mvn -Pwrite-records -pl testkit -am process-classes")
                .isEqualTo(RecordGenerator.generate(service, fresh));
    }
}
