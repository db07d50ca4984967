package yarrek.app;

import com.tngtech.archunit.core.domain.InstanceofCheck;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.ArchCondition;
import com.tngtech.archunit.lang.ConditionEvents;
import com.tngtech.archunit.lang.SimpleConditionEvent;
import com.tngtech.archunit.lang.syntax.ArchRuleDefinition;
import org.junit.jupiter.api.Test;
import org.springframework.modulith.core.ApplicationModules;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.Requirement;

/** Features talk through faces and events, never in circles; app knows formats and core, and nothing points back. */
class ModularityTest {
    /** Read once: it takes as long as all the rest. */
    private static final JavaClasses CLASSES = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("yarrek");

    @Test
    void modulesKeepToThemselves() {
        ApplicationModules.of(YarrekApplication.class).verify();
    }

    @Test
    void nothingPointsBack() {
        ArchRuleDefinition.noClasses()
                .that()
                .resideInAPackage("yarrek.core..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("yarrek.formats..", "yarrek.app..")
                .check(CLASSES);
        ArchRuleDefinition.noClasses()
                .that()
                .resideInAPackage("yarrek.formats..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("yarrek.app..")
                .check(CLASSES);
        ArchRuleDefinition.noClasses()
                .that()
                .resideInAPackage("yarrek.formats..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("org.springframework..")
                .check(CLASSES);
    }

    @Test
    void controllersDoNotTouchTheDatabase() {
        ArchRuleDefinition.noClasses()
                .that()
                .haveSimpleNameEndingWith("Controller")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("jakarta.persistence..", "org.hibernate..")
                .check(CLASSES);
    }

    /** Which kinds of requirement and condition there are is known in one place; everything else asks them. */
    @Test
    void nobodyAsksWhichKindARuleIsOf() {
        ArchRuleDefinition.noClasses().should(askForAKind()).check(CLASSES);
    }

    private static ArchCondition<JavaClass> askForAKind() {
        return new ArchCondition<>("ask of which kind a requirement or condition is") {
            @Override
            public void check(JavaClass c, ConditionEvents events) {
                for (InstanceofCheck i : c.getInstanceofChecks()) {
                    boolean kind = i.getRawType().isAssignableTo(Requirement.class)
                            || i.getRawType().isAssignableTo(Condition.class);
                    if (kind) {
                        events.add(SimpleConditionEvent.satisfied(
                                c, c.getName() + " asks for " + i.getRawType().getName()));
                    }
                }
            }
        };
    }
}
