package org.polyclave.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noFields;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.ArchCondition;
import com.tngtech.archunit.lang.ConditionEvents;
import com.tngtech.archunit.lang.SimpleConditionEvent;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.beans.factory.annotation.Autowired;
import tools.jackson.databind.json.JsonMapper;

/** The committed OpenAPI document, the rules of the modules, and the headers of every page. */
@ExtendWith(RunningApplication.class)
class ContractTest {
    private static final JavaClasses SERVER = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("org.polyclave");

    @Test
    void theCommittedOpenApiDocumentIsWhatTheServerDoes() throws IOException {
        JsonMapper json = JsonMapper.builder().build();
        String committed = Files.readString(Path.of("../openapi.json"));
        assertThat(json.readTree(Visitor.anonymous().get("/api/openapi").body()))
                .as("copy /api/openapi to openapi.json")
                .isEqualTo(json.readTree(committed));
    }

    @Test
    void pagesAllowOnlyTheirOwnScriptsAndStylesWithTheirNonce() {
        Visitor.Answer first = Visitor.anonymous().get("/studies");
        String policy =
                first.response().headers().firstValue("Content-Security-Policy").orElse("");
        assertThat(policy).contains("script-src 'self'").contains("'nonce-").doesNotContain("unsafe");
        String nonce = policy.replaceAll(".*'nonce-([^']+)'.*", "$1");
        assertThat(first.body())
                .contains("content=\"" + nonce + "\"")
                .doesNotContain("http://")
                .doesNotContain("https://");
        assertThat(Visitor.anonymous().get("/studies").body()).doesNotContain(nonce);
    }

    @Test
    void nothingImportsTheServer() {
        noClasses()
                .that()
                .resideOutsideOfPackage("org.polyclave.server..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("org.polyclave.server..")
                .check(SERVER);
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
                .check(SERVER);
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
                .check(SERVER);
    }

    @Test
    void nothingIsInjectedIntoFields() {
        noFields().should().beAnnotatedWith(Autowired.class).check(SERVER);
    }
}
