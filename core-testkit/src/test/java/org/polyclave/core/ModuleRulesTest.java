package org.polyclave.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.library.Architectures;
import org.junit.jupiter.api.Test;

class ModuleRulesTest {
    private static final JavaClasses CORE = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages(
                    "org.polyclave.core.run",
                    "org.polyclave.core.matrix",
                    "org.polyclave.core.measure",
                    "org.polyclave.core.separation",
                    "org.polyclave.core.key",
                    "org.polyclave.core.identify",
                    "org.polyclave.core.evidence",
                    "org.polyclave.core.margin",
                    "org.polyclave.core.gate",
                    "org.polyclave.core.check");

    @Test
    void coreNeedsTheJdkOnly() {
        classes()
                .should()
                .onlyDependOnClassesThat()
                .resideInAnyPackage(
                        "java.lang..",
                        "java.math",
                        "java.util",
                        "java.util.function",
                        "java.util.stream",
                        "org.polyclave.core..")
                .check(CORE);
    }

    @Test
    void packagesDependOnEarlierOnesOnly() {
        Architectures.layeredArchitecture()
                .consideringOnlyDependenciesInLayers()
                .layer("run")
                .definedBy("..core.run..")
                .layer("matrix")
                .definedBy("..core.matrix..")
                .layer("measure")
                .definedBy("..core.measure..")
                .layer("evidence")
                .definedBy("..core.evidence..")
                .layer("margin")
                .definedBy("..core.margin..")
                .layer("separation")
                .definedBy("..core.separation..")
                .layer("gate")
                .definedBy("..core.gate..")
                .layer("key")
                .definedBy("..core.key..")
                .layer("identify")
                .definedBy("..core.identify..")
                .layer("check")
                .definedBy("..core.check..")
                .whereLayer("check")
                .mayNotBeAccessedByAnyLayer()
                .whereLayer("matrix")
                .mayOnlyBeAccessedByLayers(
                        "measure", "evidence", "margin", "separation", "gate", "key", "identify", "check")
                .whereLayer("measure")
                .mayOnlyBeAccessedByLayers("evidence", "margin", "separation", "gate", "key", "identify", "check")
                .whereLayer("evidence")
                .mayOnlyBeAccessedByLayers("margin", "separation", "gate", "key", "identify", "check")
                .whereLayer("margin")
                .mayOnlyBeAccessedByLayers("separation", "gate", "key", "identify", "check")
                .whereLayer("separation")
                .mayOnlyBeAccessedByLayers("gate", "key", "identify", "check")
                .whereLayer("gate")
                .mayOnlyBeAccessedByLayers("key", "identify", "check")
                .whereLayer("key")
                .mayOnlyBeAccessedByLayers("identify", "check")
                .whereLayer("identify")
                .mayOnlyBeAccessedByLayers("check")
                .check(CORE);
    }

    /** What runs in browsers keeps to a subset that gives the same bits there. */
    @Test
    void theBrowserPartKeepsToItsSubset() {
        noClasses()
                .that()
                .resideInAnyPackage(
                        "..core.run..", "..core.matrix..", "..core.evidence..", "..core.margin..", "..core.identify..")
                .should()
                .callMethod(Math.class, "log", double.class)
                .orShould()
                .callMethod(Math.class, "exp", double.class)
                .orShould()
                .callMethod(Math.class, "pow", double.class, double.class)
                .orShould()
                .callMethod(Math.class, "rint", double.class)
                .orShould()
                .callMethod(Math.class, "round", double.class)
                .orShould()
                .dependOnClassesThat()
                .haveNameMatching("java\\.util\\.(stream\\..*|HashMap|HashSet|Random|Locale|Formatter|regex\\..*)")
                .check(CORE);
    }
}
