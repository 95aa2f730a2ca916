package org.polyclave.server.platform;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.PathItem;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.IntegerSchema;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.media.ObjectSchema;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.responses.ApiResponse;
import io.swagger.v3.oas.models.security.SecurityScheme;
import io.swagger.v3.oas.models.servers.Server;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.customizers.OperationCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** What the OpenAPI document says of the API as a whole: its version, its problems, and which properties are always there. */
@Configuration
class ApiDescription {
    /** Properties of the formats' records that may be absent; those of the server's own say so themselves. */
    private static final Map<String, Set<String>> OPTIONAL = Map.ofEntries(
            Map.entry("Token", Set.of("lastUsedAt")),
            Map.entry("LeadView", Set.of("couplet", "terminal")),
            Map.entry("CoupletView", Set.of("from", "prices", "misread")),
            Map.entry("AlternativeView", Set.of("misread", "prices")),
            Map.entry("KeyRequest", Set.of("readers")),
            Map.entry("KeyView", Set.of("whole", "leftOut")),
            Map.entry("FiguresView", Set.of("leastSteps", "trained", "novice")),
            Map.entry("Progressing", Set.of("key")),
            Map.entry("MoveRequest", Set.of("parent", "before")),
            Map.entry("StudyRow", Set.of("parent")),
            Map.entry("Assessment", Set.of("lowering")),
            Map.entry("EditionDocument", Set.of("kit", "keys")),
            Map.entry("Part", Set.of("within")),
            Map.entry("StudyState", Set.of("absent", "phrase")),
            Map.entry("StudyCharacter", Set.of("lead")),
            Map.entry("LeadPattern", Set.of("technical", "plain")),
            Map.entry("Phrase", Set.of("technical", "plain", "negative", "plainNegative")),
            Map.entry("TerminalView", Set.of("group")),
            Map.entry("Trust", Set.of("novice")),
            Map.entry("Use", Set.of("seenOn")),
            Map.entry("InGroup", Set.of("novice")),
            Map.entry("Assignment", Set.of("finished")),
            Map.entry("CharacterAgreement", Set.of("kappa", "alpha")),
            Map.entry("Event", Set.of("uncertainty")),
            Map.entry("Looking", Set.of("alteredBy")),
            Map.entry("StudyScope", Set.of("lookalikes")),
            Map.entry("PointView", Set.of("lack", "cut")),
            Map.entry("ShownCell", Set.of("range")),
            Map.entry("CutView", Set.of("from", "to")),
            Map.entry("Picture", Set.of("specimen", "scale", "data")),
            Map.entry("Scale", Set.of("from", "to", "length", "like", "name")),
            Map.entry(
                    "Reading",
                    Set.of("item", "value", "states", "uncertainty", "instrument", "by", "date", "mark", "note")),
            Map.entry("MeasuredRow", Set.of("summary", "repeatability", "unlike")),
            Map.entry("MeasuredItem", Set.of("value", "barred", "cause")),
            Map.entry("MeasuredCell", Set.of("range")),
            Map.entry("ThresholdView", Set.of("crossValidated")),
            Map.entry("StatementView", Set.of("wrong", "states", "limits")),
            Map.entry("LimitsView", Set.of("min", "max")),
            Map.entry("IdentifyRequest", Set.of("atHand", "way")),
            Map.entry("IdentifyResponse", Set.of("check")),
            Map.entry("AnswerRequest", Set.of("measured", "further")),
            Map.entry("TakenResponse", Set.of("value", "uncertainty")),
            Map.entry("DraftRequest", Set.of("item", "typed", "mark", "instrument", "standing", "note")));

    private static final String PROBLEM = "Problem";

    @Bean
    OpenAPI api() {
        return new OpenAPI()
                .servers(List.of(new Server().url("/").description("where this document was read")))
                .schemaRequirement(
                        "token",
                        new SecurityScheme()
                                .type(SecurityScheme.Type.HTTP)
                                .scheme("bearer")
                                .description(
                                        "A personal token, created in the account page. The single page signs in by a session instead."))
                .info(new Info()
                        .title("Polyclave")
                        .version("1")
                        .description(
                                "Studies of lookalike organisms, the keys made of them, and their published editions."
                                        + " Whatever fails is answered as problem+json with a code; a study that is not shared"
                                        + " with an account looks as if it did not exist."));
    }

    /** Says which problems an operation may answer with. */
    @Bean
    OpenApiCustomizer problems() {
        return api -> {
            api.getComponents().addSchemas(PROBLEM, problemSchema());
            api.getPaths()
                    .forEach((path, item) -> item.readOperationsMap()
                            .forEach((method, operation) -> addProblems(path, method, operation)));
        };
    }

    /** Operations are grouped by the subject of their controller and named by it, unless the method names it already. */
    @Bean
    OperationCustomizer names() {
        return (operation, handler) -> {
            String controller = handler.getBeanType().getSimpleName().replaceFirst("Controller$", "");
            String subject = controller.substring(0, 1).toLowerCase(Locale.ROOT) + controller.substring(1);
            String method = handler.getMethod().getName();
            boolean says = method.toLowerCase(Locale.ROOT).contains(subject.toLowerCase(Locale.ROOT));
            operation.setOperationId(
                    says ? method : subject + method.substring(0, 1).toUpperCase(Locale.ROOT) + method.substring(1));
            operation.setTags(List.of(subject));
            return operation;
        };
    }

    private static Schema<?> problemSchema() {
        StringSchema code = new StringSchema();
        code.setEnum(Arrays.stream(ProblemCode.values())
                .map(ProblemCode::code)
                .sorted()
                .toList());
        Schema<?> problem = new ObjectSchema()
                .description("What went wrong: a code for programs, one sentence for people. Some problems carry more"
                        + " properties, such as the objects that others changed.")
                .addProperty("type", new StringSchema())
                .addProperty("title", new StringSchema())
                .addProperty("status", new IntegerSchema())
                .addProperty("detail", new StringSchema().description("One sentence with the remedy."))
                .addProperty("instance", new StringSchema())
                .addProperty("code", code)
                .addProperty(
                        "field",
                        new StringSchema().description("The field or parameter of the request, if it is one."));
        problem.setRequired(List.of("code", "detail", "status"));
        problem.setAdditionalProperties(true);
        return problem;
    }

    private static void addProblems(String path, PathItem.HttpMethod method, Operation operation) {
        boolean writes = method != PathItem.HttpMethod.GET;
        boolean named = path.contains("{");
        problem(operation, "400", "The request cannot be read, or lacks a field.");
        if (named) {
            problem(operation, "404", "There is nothing here, or it is not shared with the account.");
        }
        if (path.startsWith("/api/v1/studies/{slug}") || path.startsWith("/api/v1/accounts")) {
            problem(operation, "403", "The account's role does not allow it.");
        }
        if (writes) {
            problem(operation, "409", "Somebody else changed the same thing meanwhile.");
            problem(operation, "422", "The request can be read, but what it asks for breaks a rule.");
        }
        problem(operation, "500", "Polyclave failed; nothing was changed.");
        problem(operation, "503", "The server is still starting, or busy with too much.");
    }

    private static void problem(Operation operation, String status, String description) {
        operation
                .getResponses()
                .addApiResponse(
                        status,
                        new ApiResponse()
                                .description(description)
                                .content(new Content()
                                        .addMediaType(
                                                "application/problem+json",
                                                new MediaType()
                                                        .schema(new Schema<>()
                                                                .$ref("#/components/schemas/" + PROBLEM)))));
    }

    /** Every property is present unless it is marked as nullable. */
    @Bean
    OpenApiCustomizer requiredProperties() {
        return api -> {
            api.getComponents().getSchemas().forEach(ApiDescription::requireProperties);
        };
    }

    @SuppressWarnings("unchecked") // the library hands out raw schemas
    private static void requireProperties(String name, Schema<?> schema) {
        if (schema.getProperties() == null) {
            return;
        }
        Set<String> optional = OPTIONAL.getOrDefault(name, Set.of());
        ArrayList<String> required = new ArrayList<>();
        schema.getProperties().forEach((property, value) -> {
            boolean nullable = value.getTypes() != null && value.getTypes().contains("null");
            if (nullable && value.get$ref() != null) {
                value.setTypes(null);
            }
            if (!nullable && !optional.contains(property)) {
                required.add(property);
            }
        });
        schema.setRequired(required);
    }
}
