package org.polyclave.server.platform;

import io.swagger.v3.oas.models.media.Schema;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** The clock, the built front end, and the OpenAPI document. */
@Configuration
class WebConfiguration implements WebMvcConfigurer {
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
            api.getComponents().getSchemas().values().forEach(WebConfiguration::requireProperties);
        };
    }

    private static void requireProperties(Schema<?> schema) {
        if (schema.getProperties() == null) {
            return;
        }
        ArrayList<String> required = new ArrayList<>();
        schema.getProperties().forEach((name, property) -> {
            boolean nullable =
                    property.getTypes() != null && property.getTypes().contains("null");
            if (!nullable && !Boolean.TRUE.equals(property.getNullable())) {
                required.add(name);
            }
        });
        schema.setRequired(required);
    }
}
