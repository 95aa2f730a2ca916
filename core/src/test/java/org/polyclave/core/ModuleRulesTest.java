package org.polyclave.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.library.Architectures;
import java.util.List;
import org.junit.jupiter.api.Test;

final class ModuleRulesTest {
    /** Each may use those before it. */
    private static final List<String> PACKAGES = List.of(
            "run",
            "statistics",
            "matrix",
            "evidence",
            "margin",
            "separation",
            "diagnosis",
            "gate",
            "measuring",
            "agreement",
            "key",
            "identify",
            "reading",
            "check");

    private static final JavaClasses CORE = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("org.polyclave.core")
            .that(DescribedPredicate.not(JavaClass.Predicates.resideInAPackage("org.polyclave.core.testkit..")));

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
        Architectures.LayeredArchitecture layers =
                Architectures.layeredArchitecture().consideringOnlyDependenciesInLayers();
        for (String name : PACKAGES) {
            layers = layers.layer(name).definedBy("org.polyclave.core." + name);
        }
        layers = layers.whereLayer(PACKAGES.get(0)).mayNotAccessAnyLayer();
        for (int i = 1; i < PACKAGES.size(); i++) {
            layers = layers.whereLayer(PACKAGES.get(i))
                    .mayOnlyAccessLayers(PACKAGES.subList(0, i).toArray(String[]::new));
        }
        layers.check(CORE);
    }

    @Test
    void everyPackageHasItsPlace() {
        classes()
                .should()
                .resideInAnyPackage(
                        PACKAGES.stream().map(p -> "org.polyclave.core." + p).toArray(String[]::new))
                .check(CORE);
    }

    /** What runs in browsers keeps to a subset that gives the same bits there. */
    @Test
    void theBrowserPartKeepsToItsSubset() {
        noClasses()
                .that()
                .resideInAnyPackage(
                        "..core.run..",
                        "..core.matrix..",
                        "..core.evidence..",
                        "..core.margin..",
                        "..core.identify..",
                        "..core.reading..")
                .or()
                .haveNameMatching(".*\\.statistics\\.(StudentPoints|StudentPredictive|NormalScale|Measured)")
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
