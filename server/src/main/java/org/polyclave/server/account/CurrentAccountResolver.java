package org.polyclave.server.account;

import org.jspecify.annotations.Nullable;
import org.polyclave.server.platform.Problems;
import org.springframework.core.MethodParameter;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;

/** Gives handlers the account that asks, for a parameter that says {@link Current}. */
@Component
public class CurrentAccountResolver implements HandlerMethodArgumentResolver {
    /** The account that is signed in. */
    public static @Nullable SignedIn signedIn() {
        Authentication authentication = SecurityContextHolder.getContext().getAuthentication();
        return authentication != null && authentication.getPrincipal() instanceof SignedIn who ? who : null;
    }

    @Override
    public boolean supportsParameter(MethodParameter parameter) {
        return parameter.hasParameterAnnotation(Current.class);
    }

    @Override
    public Account resolveArgument(
            MethodParameter parameter,
            @Nullable ModelAndViewContainer container,
            NativeWebRequest request,
            @Nullable WebDataBinderFactory binders) {
        SignedIn who = signedIn();
        Current needed = parameter.getParameterAnnotation(Current.class);
        boolean administrators = needed != null && needed.administrator();
        if (who == null || (administrators && !who.account().administrator())) {
            throw Problems.notFound();
        }
        boolean byToken = SecurityContextHolder.getContext().getAuthentication() instanceof TokenFilter.ByToken;
        if (byToken && needed != null && !needed.byToken()) {
            throw Problems.forbidden("A token cannot do this. Sign in.");
        }
        return who.account();
    }
}
