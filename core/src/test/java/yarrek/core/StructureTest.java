package yarrek.core;

import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.lang.syntax.ArchRuleDefinition;

/** The core stays plain: no circles, no clock of its own, no frameworks, no I/O. */
@AnalyzeClasses(packages = "yarrek.core", importOptions = ImportOption.DoNotIncludeTests.class)
class StructureTest {
    @ArchTest
    static final ArchRule packagesHaveNoCircles =
            slices().matching("yarrek.core.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule nothingAsksTheTime = ArchRuleDefinition.noClasses()
            .should()
            .callMethod(java.time.Instant.class, "now")
            .orShould()
            .callMethod(java.time.LocalDate.class, "now")
            .orShould()
            .callMethod(System.class, "currentTimeMillis")
            .orShould()
            .callMethod(System.class, "nanoTime");

    @ArchTest
    static final ArchRule nothingReachesOutside = ArchRuleDefinition.noClasses()
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "java.net..",
                    "java.nio.file..",
                    "java.sql..",
                    "org.springframework..",
                    "jakarta..",
                    "org.hibernate..",
                    "org.slf4j..");
}
