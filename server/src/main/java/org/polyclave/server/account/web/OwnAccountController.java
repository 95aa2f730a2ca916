package org.polyclave.server.account.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.util.List;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.account.Current;
import org.polyclave.server.account.OpenSessions;
import org.polyclave.server.account.SignInAttempts;
import org.polyclave.server.account.SignInContext;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** One's own account. A token cannot change it: whoever found one must not lock out its owner. */
@RestController
@RequestMapping("/api/v1/account")
class OwnAccountController {
    record NameRequest(String displayName) {}

    record PasswordRequest(String current, String password) {}

    private final AccountService accounts;
    private final OpenSessions sessions;
    private final SignInAttempts attempts;
    private final SignInContext context;

    OwnAccountController(
            AccountService accounts, OpenSessions sessions, SignInAttempts attempts, SignInContext context) {
        this.accounts = accounts;
        this.sessions = sessions;
        this.attempts = attempts;
        this.context = context;
    }

    /** Where one is signed in. */
    @GetMapping("/sessions")
    List<OpenSessions.OpenSession> sessions(@Current(byToken = false) Account who, HttpServletRequest request) {
        return sessions.of(who, id(request));
    }

    /** Signs out everywhere else. */
    @DeleteMapping("/sessions")
    void signOutElsewhere(@Current(byToken = false) Account who, HttpServletRequest request) {
        sessions.end(who, id(request));
    }

    /** Changes the name that others see. */
    @PutMapping("/name")
    Account rename(
            @Current(byToken = false) Account who,
            @RequestBody NameRequest request,
            HttpServletRequest servletRequest,
            HttpServletResponse response) {
        Account renamed = accounts.rename(who, request.displayName());
        context.replace(renamed, servletRequest, response);
        return renamed;
    }

    /** Changes the password, and signs out everywhere else. */
    @PutMapping("/password")
    void changePassword(
            @Current(byToken = false) Account who,
            @RequestBody PasswordRequest request,
            HttpServletRequest servletRequest) {
        String address = servletRequest.getRemoteAddr();
        // Whoever sits at a machine that was left signed in must not guess here what they may not guess at the door.
        attempts.check(who.name(), address);
        if (!accounts.isPassword(who, request.current())) {
            attempts.failed(who.name(), address);
            throw Problems.badRequest(ProblemCode.SIGN_IN, "That is not your present password.");
        }
        attempts.succeeded(who.name(), address);
        accounts.changePassword(who, request.password(), id(servletRequest));
    }

    private static String id(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        return session == null ? "" : session.getId();
    }
}
