package dev.oddsentry.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

class ArchitectureTest {
    private final JavaClasses core = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("dev.oddsentry.core");

    @Test
    void coreKnowsTheJdkAndAFewPureLibrariesOnly() {
        classes()
                .should()
                .onlyDependOnClassesThat()
                .resideInAnyPackage(
                        "dev.oddsentry.core..",
                        "java..",
                        "org.jspecify..",
                        "net.fortuna.ical4j..",
                        "com.dynatrace.hash4j..",
                        "com.google.re2j..",
                        "com.samskivert.mustache..",
                        "org.snakeyaml.engine..")
                .check(core);
    }

    @Test
    void packagesFormNoCircle() {
        slices().matching("dev.oddsentry.core.(*)..").should().beFreeOfCycles().check(core);
    }
}
