package org.polyclave.server.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.stereotype.Component;

/** Who a session speaks for. */
@Component
public class SignInContext {
    private final SecurityContextRepository contexts;

    SignInContext(SecurityContextRepository contexts) {
        this.contexts = contexts;
    }

    public void keep(Authentication signedIn, HttpServletRequest request, HttpServletResponse response) {
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(signedIn);
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
    }

    /** The same account under another name. */
    public void replace(Account account, HttpServletRequest request, HttpServletResponse response) {
        SignedIn who = new SignedIn(account, "");
        keep(UsernamePasswordAuthenticationToken.authenticated(who, null, who.getAuthorities()), request, response);
    }
}
