package org.polyclave.server.access;

import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.parameters.PathParameter;
import java.util.Arrays;
import java.util.List;
import org.polyclave.server.account.Current;
import org.polyclave.server.account.CurrentAccountResolver;
import org.springdoc.core.customizers.OperationCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Lets handlers take an open study or the account that asks, and tells readers of the API that its path names it. */
@Configuration
class AccessConfiguration implements WebMvcConfigurer {
    static {
        SpringDocUtils.getConfig().addRequestWrapperToIgnore(OpenStudy.class);
        SpringDocUtils.getConfig().addAnnotationsToIgnore(Current.class);
    }

    private final OpenStudyResolver studies;
    private final CurrentAccountResolver accounts;

    AccessConfiguration(OpenStudyResolver studies, CurrentAccountResolver accounts) {
        this.studies = studies;
        this.accounts = accounts;
    }

    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(studies);
        resolvers.add(accounts);
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
