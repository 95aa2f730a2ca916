package org.polyclave.server.platform;

import com.fasterxml.jackson.annotation.JsonTypeInfo;
import io.swagger.v3.oas.models.media.Discriminator;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.media.StringSchema;
import java.util.List;
import org.polyclave.files.study.StudyFormat;
import org.springdoc.core.customizers.OpenApiBuilderCustomizer;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.providers.ObjectMapperProvider;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** What is written as JSON, and what the API's document says of it, agree: both learn the same shapes. */
@Configuration
class JsonConfiguration {
    /** Objects of a study look in the database and in the API as they do in study files. */
    @Bean
    JsonShapes studyShapes() {
        return new JsonShapes(StudyFormat.shapes());
    }

    @Bean
    JsonMapperBuilderCustomizer shapesOfJson(List<JsonShapes> all) {
        return builder -> all.forEach(one -> one.shapes().forEach(builder::addMixIn));
    }

    /** The document's generator looks for them on the types themselves only. */
    @Bean
    OpenApiCustomizer discriminators(List<JsonShapes> all) {
        return api -> all.forEach(one -> one.shapes().forEach((type, shape) -> {
            JsonTypeInfo told = shape.getAnnotation(JsonTypeInfo.class);
            Schema<?> schema = api.getComponents().getSchemas().get(type.getSimpleName());
            if (told != null && schema != null) {
                schema.addProperty(told.property(), new StringSchema());
                schema.addRequiredItem(told.property());
                schema.setDiscriminator(new Discriminator().propertyName(told.property()));
            }
        }));
    }

    @Bean
    OpenApiBuilderCustomizer shapesOfTheDocument(List<JsonShapes> all, ObjectMapperProvider documented) {
        return builder -> all.forEach(one -> one.shapes().forEach(documented.jsonMapper()::addMixIn));
    }
}
