package org.polyclave.server.access;

import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.CurrentAccountResolver;
import org.polyclave.server.platform.Problems;
import org.springframework.core.MethodParameter;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.HandlerMapping;

/** Opens the study of a request for a parameter that says {@link AtLeast} which role it takes. */
@Component
class OpenStudyResolver implements HandlerMethodArgumentResolver {
    private final StudyAccess access;

    OpenStudyResolver(StudyAccess access) {
        this.access = access;
    }

    @Override
    public boolean supportsParameter(MethodParameter parameter) {
        return parameter.getParameterType() == OpenStudy.class;
    }

    @Override
    public OpenStudy resolveArgument(
            MethodParameter parameter,
            @Nullable ModelAndViewContainer container,
            NativeWebRequest request,
            @Nullable WebDataBinderFactory binders) {
        AtLeast needed = parameter.getParameterAnnotation(AtLeast.class);
        if (needed == null) {
            throw new IllegalStateException(parameter + " does not say which role it takes");
        }
        OpenStudy open = access.open(slug(request), CurrentAccountResolver.signedIn(), needed.value());
        if (!needed.evenBlind()) {
            StudyAccess.refuseBlind(open);
        }
        return open;
    }

    private static String slug(NativeWebRequest request) {
        Object variables =
                request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE, RequestAttributes.SCOPE_REQUEST);
        if (variables instanceof Map<?, ?> named && named.get("slug") instanceof String slug) {
            return slug;
        }
        throw Problems.notFound();
    }
}
