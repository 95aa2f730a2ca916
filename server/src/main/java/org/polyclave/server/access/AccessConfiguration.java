package org.polyclave.server.access;

import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.parameters.PathParameter;
import java.util.Arrays;
import java.util.List;
import org.springdoc.core.customizers.OperationCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Lets handlers take an open study, and tells readers of the API that its path names it. */
@Configuration
class AccessConfiguration implements WebMvcConfigurer {
    static {
        SpringDocUtils.getConfig().addRequestWrapperToIgnore(OpenStudy.class);
    }

    private final OpenStudyResolver resolver;

    AccessConfiguration(OpenStudyResolver resolver) {
        this.resolver = resolver;
    }

    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(resolver);
    }

    @Bean
    OperationCustomizer slugOfTheStudy() {
        return (operation, handler) -> {
            boolean opens =
                    Arrays.stream(handler.getMethodParameters()).anyMatch(p -> p.getParameterType() == OpenStudy.class);
            if (opens) {
                PathParameter slug = new PathParameter();
                slug.name("slug").schema(new StringSchema());
                if (operation.getParameters() == null) {
                    operation.addParametersItem(slug);
                } else {
                    operation.getParameters().add(0, slug);
                }
            }
            return operation;
        };
    }
}
