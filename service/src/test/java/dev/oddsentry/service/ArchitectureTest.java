package dev.oddsentry.service;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

/** Arrows run one way: service to extracts to core; nothing reads a clock of its own; only mail talks SMTP. */
class ArchitectureTest {
    private static final JavaClasses ALL = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("dev.oddsentry");

    @Test
    void extractsKnowNeitherDatabaseNorWeb() {
        noClasses()
                .that()
                .resideInAPackage("dev.oddsentry.extracts..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "dev.oddsentry.service..", "org.springframework..", "org.jooq..", "java.sql..", "jakarta..")
                .check(ALL);
    }

    @Test
    void timeComesFromTheClockHandedIn() {
        for (Class<?> moment : new Class<?>[] {
            java.time.Instant.class,
            java.time.LocalDate.class,
            java.time.LocalDateTime.class,
            java.time.ZonedDateTime.class
        }) {
            noClasses()
                    .that()
                    .resideInAnyPackage("dev.oddsentry.core..", "dev.oddsentry.extracts..", "dev.oddsentry.service..")
                    .should()
                    .callMethod(moment, "now")
                    .check(ALL);
        }
        noClasses()
                .that()
                .resideInAPackage("dev.oddsentry..")
                .should()
                .callMethod(System.class, "currentTimeMillis")
                .check(ALL);
    }

    @Test
    void onlyMailAndBouncesKnowTheMailLibrary() {
        noClasses()
                .that()
                .resideInAPackage("dev.oddsentry.service..")
                .and()
                .resideOutsideOfPackages("dev.oddsentry.service.mail..", "dev.oddsentry.service.bounces..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("jakarta.mail..", "org.eclipse.angus..")
                .check(ALL);
    }
}
