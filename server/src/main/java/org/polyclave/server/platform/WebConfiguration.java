package org.polyclave.server.platform;

import io.swagger.v3.oas.models.media.Schema;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Map;
import java.util.Set;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** The clock, the built front end, and the OpenAPI document. */
@Configuration
class WebConfiguration implements WebMvcConfigurer {
    /** Properties of the formats' records that may be absent; those of the server's own say so themselves. */
    private static final Map<String, Set<String>> OPTIONAL = Map.ofEntries(
            Map.entry("LeadView", Set.of("couplet", "terminal")),
            Map.entry("CoupletView", Set.of("from")),
            Map.entry("KeyView", Set.of("whole")),
            Map.entry("Progressing", Set.of("key")),
            Map.entry("MoveRequest", Set.of("parent", "before")),
            Map.entry("StudyRow", Set.of("parent")),
            Map.entry("Assessment", Set.of("lowering")),
            Map.entry("EditionDocument", Set.of("kit")),
            Map.entry("Part", Set.of("within")),
            Map.entry("StudyState", Set.of("absent")),
            Map.entry("TerminalView", Set.of("group")),
            Map.entry("Trust", Set.of("novice")),
            Map.entry("InGroup", Set.of("novice")),
            Map.entry("Assignment", Set.of("finished")),
            Map.entry("OfCharacter", Set.of("kappa", "alpha")),
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
            Map.entry("StatementView", Set.of("wrong")),
            Map.entry("AnswerRequest", Set.of("measured", "further")),
            Map.entry("TakenResponse", Set.of("value", "uncertainty")),
            Map.entry("DraftRequest", Set.of("item", "typed", "mark", "instrument", "standing", "note")));

    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        registry.addResourceHandler("/assets/**")
                .addResourceLocations("classpath:/static/assets/")
                .setCacheControl(CacheControl.maxAge(Duration.ofDays(365)).immutable());
    }

    @Bean
    Clock clock() {
        return Clock.systemUTC();
    }

    /** Every property is present unless it is marked as nullable. */
    @Bean
    OpenApiCustomizer requiredProperties() {
        return api -> {
            api.setServers(null);
            api.getComponents().getSchemas().forEach(WebConfiguration::requireProperties);
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
