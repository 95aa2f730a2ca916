package org.polyclave.server.account.web;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.DemoAccounts;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.platform.Problems;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Signing in and out. */
@RestController
@RequestMapping("/api/session")
class SessionController {
    record SignInRequest(String name, String password) {}

    /** @param account null when nobody is signed in */
    record SessionResponse(
            @Schema(nullable = true) @Nullable Account account, List<DemoAccounts.DemoAccount> demoAccounts) {}

    private final AuthenticationManager authentication;
    private final SecurityContextRepository contexts;
    private final DemoAccounts demo;

    SessionController(AuthenticationManager authentication, SecurityContextRepository contexts, DemoAccounts demo) {
        this.authentication = authentication;
        this.contexts = contexts;
        this.demo = demo;
    }

    @GetMapping
    SessionResponse session(@AuthenticationPrincipal @Nullable SignedIn who, CsrfToken token) {
        // Reading the token makes the cookie that the single page sends back.
        token.getToken();
        return new SessionResponse(who == null ? null : who.account(), demo.offered());
    }

    @PostMapping
    SessionResponse signIn(
            @RequestBody SignInRequest request, HttpServletRequest servletRequest, HttpServletResponse response) {
        Authentication signedIn;
        try {
            signedIn = authentication.authenticate(
                    UsernamePasswordAuthenticationToken.unauthenticated(request.name(), request.password()));
        } catch (AuthenticationException refused) {
            throw Problems.badRequest(
                    "sign-in", "Name and password do not belong together. Check both, or ask your administrator.");
        }
        HttpSession old = servletRequest.getSession(false);
        if (old != null) {
            servletRequest.changeSessionId();
        }
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(signedIn);
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, servletRequest, response);
        SignedIn who = (SignedIn) java.util.Objects.requireNonNull(signedIn.getPrincipal());
        return new SessionResponse(who.account(), demo.offered());
    }

    @DeleteMapping
    void signOut(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        if (session != null) {
            session.invalidate();
        }
        SecurityContextHolder.clearContext();
    }
}
