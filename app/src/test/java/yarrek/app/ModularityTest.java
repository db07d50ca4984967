package yarrek.app;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.syntax.ArchRuleDefinition;
import org.junit.jupiter.api.Test;
import org.springframework.modulith.core.ApplicationModules;

/** Features talk through faces and events, never in circles; app knows formats and core, and nothing points back. */
class ModularityTest {
    @Test
    void modulesKeepToThemselves() {
        ApplicationModules.of(YarrekApplication.class).verify();
    }

    @Test
    void nothingPointsBack() {
        JavaClasses classes = new ClassFileImporter()
                .withImportOption(new ImportOption.DoNotIncludeTests())
                .importPackages("yarrek");
        ArchRuleDefinition.noClasses()
                .that()
                .resideInAPackage("yarrek.core..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("yarrek.formats..", "yarrek.app..")
                .check(classes);
        ArchRuleDefinition.noClasses()
                .that()
                .resideInAPackage("yarrek.formats..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("yarrek.app..")
                .check(classes);
        ArchRuleDefinition.noClasses()
                .that()
                .resideInAPackage("yarrek.formats..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("org.springframework..")
                .check(classes);
    }

    @Test
    void controllersDoNotTouchTheDatabase() {
        JavaClasses classes = new ClassFileImporter()
                .withImportOption(new ImportOption.DoNotIncludeTests())
                .importPackages("yarrek.app");
        ArchRuleDefinition.noClasses()
                .that()
                .haveSimpleNameEndingWith("Controller")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("jakarta.persistence..", "org.hibernate..")
                .check(classes);
    }
}
