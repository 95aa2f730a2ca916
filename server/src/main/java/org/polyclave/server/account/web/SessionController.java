package org.polyclave.server.account.web;

import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.DemoAccounts;
import org.polyclave.server.account.SignInAttempts;
import org.polyclave.server.account.SignInContext;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.springframework.boot.availability.ApplicationAvailability;
import org.springframework.boot.availability.ReadinessState;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.authentication.InternalAuthenticationServiceException;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Signing in and out. */
@RestController
@RequestMapping("/api/v1/session")
class SessionController {
    record SignInRequest(String name, String password) {}

    /**
     * @param account null when nobody is signed in
     * @param starting whether the installation is still being filled, so that its accounts may not exist yet
     */
    record SessionResponse(
            @Schema(nullable = true) @Nullable Account account,
            List<DemoAccounts.DemoAccount> demoAccounts,
            boolean starting) {}

    private final AuthenticationManager authentication;
    private final SignInContext context;
    private final DemoAccounts demo;
    private final ApplicationAvailability availability;
    private final SignInAttempts attempts;

    SessionController(
            AuthenticationManager authentication,
            SignInContext context,
            DemoAccounts demo,
            ApplicationAvailability availability,
            SignInAttempts attempts) {
        this.authentication = authentication;
        this.context = context;
        this.demo = demo;
        this.availability = availability;
        this.attempts = attempts;
    }

    private SessionResponse response(@Nullable Account account) {
        return new SessionResponse(account, demo.offered(), isStarting());
    }

    private boolean isStarting() {
        return availability.getReadinessState() != ReadinessState.ACCEPTING_TRAFFIC;
    }

    /** Who is signed in, and whether the installation is still starting. */
    @GetMapping
    SessionResponse session(
            @AuthenticationPrincipal @Nullable SignedIn who, @Parameter(hidden = true) CsrfToken token) {
        // Reading the token makes the cookie that the single page sends back.
        token.getToken();
        return response(who == null ? null : who.account());
    }

    /** Starts a session. */
    @PostMapping
    SessionResponse signIn(
            @RequestBody SignInRequest request, HttpServletRequest servletRequest, HttpServletResponse response) {
        String address = servletRequest.getRemoteAddr();
        attempts.check(request.name(), address);
        Authentication signedIn;
        try {
            signedIn = authentication.authenticate(
                    UsernamePasswordAuthenticationToken.unauthenticated(request.name(), request.password()));
        } catch (InternalAuthenticationServiceException broken) {
            // Nobody looked at the password: that is no reason to say that it is wrong.
            throw broken.getCause() instanceof RuntimeException cause ? cause : broken;
        } catch (AuthenticationException refused) {
            if (isStarting()) {
                throw Problems.unavailable(
                        ProblemCode.STARTING,
                        "Polyclave is still starting; its accounts are not there yet. Wait a moment.");
            }
            attempts.failed(request.name(), address);
            throw Problems.badRequest(
                    ProblemCode.SIGN_IN, "Name and password do not match. Check both, or ask your administrator.");
        }
        attempts.succeeded(request.name(), address);
        HttpSession old = servletRequest.getSession(false);
        if (old != null) {
            servletRequest.changeSessionId();
        }
        context.keep(signedIn, servletRequest, response);
        SignedIn who = (SignedIn) java.util.Objects.requireNonNull(signedIn.getPrincipal());
        return response(who.account());
    }

    /** Ends the session. */
    @DeleteMapping
    void signOut(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        if (session != null) {
            session.invalidate();
        }
        SecurityContextHolder.clearContext();
    }
}
