package org.polyclave.server.platform;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.servlet.HandlerExceptionResolver;

/** Sessions are read before any handler runs: with the database down, that fails outside of what answers for handlers. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class DatabaseDownFilter extends OncePerRequestFilter {
    private final HandlerExceptionResolver handlerExceptionResolver;

    DatabaseDownFilter(HandlerExceptionResolver handlerExceptionResolver) {
        this.handlerExceptionResolver = handlerExceptionResolver;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        try {
            chain.doFilter(request, response);
        } catch (DataAccessResourceFailureException | CannotCreateTransactionException down) {
            if (response.isCommitted()) {
                throw down;
            }
            response.reset();
            handlerExceptionResolver.resolveException(request, response, null, down);
        }
    }
}
