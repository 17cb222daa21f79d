package dev.oddsentry.service;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.web.bind.annotation.RestController;

/** Arrows run one way: service to extracts to core; nothing reads a clock of its own; only mail talks SMTP. */
class ArchitectureTest {
    private static final JavaClasses ALL = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("dev.oddsentry");

    /** The tables name the enums of every room, and every room reads tables. */
    private static final DescribedPredicate<JavaClass> TABLES =
            JavaClass.Predicates.resideInAPackage("dev.oddsentry.service.db.generated..");

    @ParameterizedTest
    @ValueSource(strings = {"dev.oddsentry.service.(*)..", "dev.oddsentry.core.(*)..", "dev.oddsentry.extracts.(*).."})
    void roomsFormNoCycle(String rooms) {
        slices().matching(rooms)
                .should()
                .beFreeOfCycles()
                .ignoreDependency(TABLES, DescribedPredicate.alwaysTrue())
                .check(ALL);
    }

    @Test
    void nothingImportsTheApi() {
        noClasses()
                .that()
                .resideOutsideOfPackage("dev.oddsentry.service.api..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("dev.oddsentry.service.api..")
                .check(ALL);
    }

    @Test
    void whatAnswersRequestsOfTheApiIsInTheApi() {
        classes()
                .that()
                .areAnnotatedWith(RestController.class)
                .should()
                .resideInAPackage("dev.oddsentry.service.api..")
                .check(ALL);
    }

    @Test
    void noRoomHoldsMoreThanAFifthOfTheService() {
        var sizes = ALL.stream()
                .filter(each -> each.getPackageName().startsWith("dev.oddsentry.service")
                        && !TABLES.test(each)
                        && each.isTopLevelClass())
                .collect(Collectors.groupingBy(JavaClass::getPackageName, Collectors.counting()));
        long all = sizes.values().stream().mapToLong(Long::longValue).sum();
        assertThat(sizes)
                .allSatisfy((room, classes) -> assertThat(classes * 5).as(room).isLessThanOrEqualTo(all));
    }

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
