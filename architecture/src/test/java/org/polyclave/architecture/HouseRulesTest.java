package org.polyclave.architecture;

import static com.tngtech.archunit.base.DescribedPredicate.not;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAPackage;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noFields;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.ArchCondition;
import com.tngtech.archunit.lang.ConditionEvents;
import com.tngtech.archunit.lang.SimpleConditionEvent;
import com.tngtech.archunit.library.Architectures;
import com.tngtech.archunit.library.dependencies.SlicesRuleDefinition;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** The order of the whole house: modules, the packages inside them, and no circle anywhere. */
final class HouseRulesTest {
    private static final JavaClasses ALL = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("org.polyclave");

    /** What each module may use of the others. */
    private static final Map<String, List<String>> MODULES = Map.of(
            "core", List.of(),
            "study", List.of("core"),
            "wording", List.of("core", "study"),
            "files", List.of("core", "study", "wording"),
            "print", List.of("core", "study", "wording"),
            "demo", List.of("core", "study", "wording", "files", "print"),
            "cli", List.of("core", "study", "wording", "files", "print"),
            "server", List.of("core", "study", "wording", "files", "print", "demo"));

    /** The rooms of the study; each may use those of the lines above its own. */
    private static final List<List<String>> STUDY = List.of(
            List.of("model"),
            List.of("notation"),
            List.of("rules"),
            List.of("compile"),
            List.of("kit", "danger", "change", "measuring", "agreement"),
            List.of("comparison"),
            List.of("checks", "advice"));

    /** Readers and writers of foreign formats; each may use those of the lines above its own. */
    private static final List<List<String>> FILES = List.of(
            List.of("source", "picture"),
            List.of("sheet"),
            List.of("darwincore", "nexus", "study", "key"),
            List.of("table", "library"),
            List.of("convert"));

    @Test
    void modulesUseOnlyWhatLiesBelowThem() {
        Architectures.LayeredArchitecture house = Architectures.layeredArchitecture()
                .consideringOnlyDependenciesInLayers()
                .withOptionalLayers(false);
        for (String module : MODULES.keySet()) {
            house = house.layer(module).definedBy("org.polyclave." + module + "..");
        }
        for (Map.Entry<String, List<String>> module : MODULES.entrySet()) {
            house = module.getValue().isEmpty()
                    ? house.whereLayer(module.getKey()).mayNotAccessAnyLayer()
                    : house.whereLayer(module.getKey())
                            .mayOnlyAccessLayers(module.getValue().toArray(String[]::new));
        }
        house.check(ALL);
    }

    @Test
    void theRoomsOfTheStudyStandInTheirOrder() {
        checkOrder("org.polyclave.study.", STUDY);
    }

    @Test
    void theRoomsOfTheFilesStandInTheirOrder() {
        checkOrder("org.polyclave.files.", FILES);
    }

    private static void checkOrder(String root, List<List<String>> order) {
        Architectures.LayeredArchitecture rooms =
                Architectures.layeredArchitecture().consideringOnlyDependenciesInLayers();
        List<String> below = new ArrayList<>();
        for (List<String> line : order) {
            for (String room : line) {
                rooms = rooms.layer(room).definedBy(root + room + "..");
            }
        }
        for (List<String> line : order) {
            for (String room : line) {
                rooms = below.isEmpty()
                        ? rooms.whereLayer(room).mayNotAccessAnyLayer()
                        : rooms.whereLayer(room).mayOnlyAccessLayers(below.toArray(String[]::new));
            }
            below.addAll(line);
        }
        rooms.check(ALL);
        classes()
                .that(resideInAPackage(root.substring(0, root.length() - 1) + ".."))
                .should()
                .resideInAnyPackage(below.stream().map(r -> root + r + "..").toArray(String[]::new))
                .check(ALL);
    }

    @Test
    void noPackagesDependOnOneAnotherInACircle() {
        SlicesRuleDefinition.slices()
                .matching("org.polyclave.(**)")
                .should()
                .beFreeOfCycles()
                .check(ALL);
    }

    @Test
    void noFeaturesOfTheServerDependOnOneAnotherInACircle() {
        SlicesRuleDefinition.slices()
                .matching("org.polyclave.server.(*)..")
                .should()
                .beFreeOfCycles()
                .check(ALL);
    }

    /** Whoever opens a study says which role that takes; nothing else opens one. */
    @Test
    void studiesAreOpenedByTheirRoleOnly() {
        noClasses()
                .that(not(resideInAPackage("org.polyclave.server.access..")))
                .and()
                .resideInAPackage("org.polyclave.server.*.web")
                .should()
                .dependOnClassesThat()
                .haveSimpleName("StudyAccess")
                .check(ALL);
    }

    @Test
    void onlyTheServerKnowsSpring() {
        noClasses()
                .that(not(resideInAPackage("org.polyclave.server..")))
                .should()
                .dependOnClassesThat()
                .resideInAPackage("org.springframework..")
                .check(ALL);
    }

    /** What a study is and must be is said without any file format. */
    @Test
    void theStudyOpensNoFiles() {
        noClasses()
                .that(resideInAPackage("org.polyclave.study.."))
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "java.nio.file..", "org.apache..", "com.networknt..", "com.fasterxml..", "tools.jackson..")
                .check(ALL);
    }

    @Test
    void controllersDoNotTouchMappers() {
        noClasses()
                .that()
                .resideInAPackage("..server.*.web..")
                .should()
                .dependOnClassesThat()
                .haveSimpleNameEndingWith("Mapper")
                .andShould()
                .dependOnClassesThat()
                .resideInAPackage("org.apache.ibatis..")
                .check(ALL);
    }

    @Test
    void mappersAreUsedByTheirFeatureOnly() {
        classes()
                .that()
                .resideInAPackage("org.polyclave.server.*.persistence")
                .should(new ArchCondition<>("be used by their feature only") {
                    @Override
                    public void check(JavaClass mapper, ConditionEvents events) {
                        String feature = mapper.getPackageName().replace(".persistence", "");
                        mapper.getDirectDependenciesToSelf().stream()
                                .filter(d ->
                                        !d.getOriginClass().getPackageName().startsWith(feature))
                                .forEach(d -> events.add(SimpleConditionEvent.violated(mapper, d.getDescription())));
                    }
                })
                .check(ALL);
    }

    @Test
    void nothingIsInjectedIntoFields() {
        noFields().should().beAnnotatedWith(Autowired.class).check(ALL);
    }
}
