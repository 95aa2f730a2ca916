package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** The committed OpenAPI document, the rules of the modules, and the headers of every page. */
@ExtendWith(RunningApplication.class)
class ContractTest {
    @Test
    void theCommittedOpenApiDocumentIsWhatTheServerDoes() throws IOException {
        JsonMapper json = JsonMapper.builder()
                .enable(SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS)
                .enable(SerializationFeature.INDENT_OUTPUT)
                .build();
        String served = json.writeValueAsString(
                json.readValue(Visitor.anonymous().get("/api/v1/openapi").body(), TreeMap.class));
        Path written = Files.writeString(Path.of("target/openapi.json"), served + "\n");
        assertThat(Path.of("../openapi.json"))
                .as("copy server/target/openapi.json to openapi.json")
                .hasSameTextualContentAs(written);
    }

    /** Who reads the API learns of each operation what it does. */
    @Test
    void everyOperationSaysWhatItDoes() {
        JsonNode api = JsonMapper.builder()
                .build()
                .readTree(Visitor.anonymous().get("/api/v1/openapi").body());
        api.path("paths")
                .forEachEntry((path, item) -> item.forEachEntry((method, operation) -> assertThat(
                                operation.path("summary").asString(""))
                        .as("%s %s", method, path)
                        .isNotBlank()));
    }

    @Test
    void pagesAllowOnlyTheirOwnScriptsAndStylesWithTheirNonce() {
        Visitor.Answer first = Visitor.anonymous().get("/studies");
        String policy =
                first.response().headers().firstValue("Content-Security-Policy").orElse("");
        assertThat(first.response().headers().firstValue("Permissions-Policy"))
                .as("the bench takes pictures; nothing listens")
                .hasValueSatisfying(p -> assertThat(p).contains("camera=(self)", "microphone=()"));
        assertThat(policy).contains("script-src 'self'").contains("'nonce-").doesNotContain("unsafe");
        String nonce = policy.replaceAll(".*'nonce-([^']+)'.*", "$1");
        assertThat(first.body())
                .contains("content=\"" + nonce + "\"")
                .doesNotContain("http://")
                .doesNotContain("https://");
        assertThat(Visitor.anonymous().get("/studies").body()).doesNotContain(nonce);
    }
}
