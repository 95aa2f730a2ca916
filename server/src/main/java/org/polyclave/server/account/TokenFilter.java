package org.polyclave.server.account;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.platform.Problems;
import org.springframework.http.HttpHeaders;
import org.springframework.security.authentication.AbstractAuthenticationToken;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.servlet.HandlerExceptionResolver;

/**
 * Lets a request speak for an account by {@code Authorization: Bearer}. Such a request has no session: a token that is not
 * valid is refused, and never falls back to a cookie.
 */
@Component
public class TokenFilter extends OncePerRequestFilter {
    private static final String BEARER = "Bearer ";
    private static final Set<String> READING = Set.of("GET", "HEAD", "OPTIONS");

    private final TokenService tokens;
    private final HandlerExceptionResolver handlerExceptionResolver;

    TokenFilter(TokenService tokens, HandlerExceptionResolver handlerExceptionResolver) {
        this.tokens = tokens;
        this.handlerExceptionResolver = handlerExceptionResolver;
    }

    /** Whether a request brings a token. Browsers never send one by themselves, so it needs no other proof of its origin. */
    public static boolean bringsToken(HttpServletRequest request) {
        String header = request.getHeader(HttpHeaders.AUTHORIZATION);
        return header != null && header.startsWith(BEARER);
    }

    /** An account that speaks by a token. */
    static final class ByToken extends AbstractAuthenticationToken {
        private static final long serialVersionUID = 1;

        private final SignedIn who;

        ByToken(SignedIn who) {
            super(List.of());
            this.who = who;
            setAuthenticated(true);
        }

        @Override
        public @Nullable Object getCredentials() {
            return null;
        }

        @Override
        public Object getPrincipal() {
            return who;
        }
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (!bringsToken(request)) {
            chain.doFilter(request, response);
            return;
        }
        String secret = request.getHeader(HttpHeaders.AUTHORIZATION)
                .substring(BEARER.length())
                .strip();
        Optional<TokenService.Bearer> bearer = tokens.bearer(secret);
        if (bearer.isEmpty()) {
            refuse(
                    request,
                    response,
                    Problems.unauthorized("This token is not valid. Create a new one in your account."));
            return;
        }
        if (bearer.get().scope() == TokenService.Scope.READ && !READING.contains(request.getMethod())) {
            refuse(request, response, Problems.forbidden("This token may only read. Create one that may write."));
            return;
        }
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(new ByToken(bearer.get().who()));
        SecurityContextHolder.setContext(context);
        try {
            chain.doFilter(request, response);
        } finally {
            SecurityContextHolder.clearContext();
        }
    }

    private void refuse(HttpServletRequest request, HttpServletResponse response, Exception problem) {
        handlerExceptionResolver.resolveException(request, response, null, problem);
    }
}
