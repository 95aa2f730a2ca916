package org.polyclave.server.account;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.persistence.TokenMapper;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Personal tokens, by which scripts speak for an account. A token is shown once; only its hash is kept.
 */
@Service
public class TokenService {
    private static final int MOST = 50;
    /** Tells people, and scanners for leaked secrets, what it is. */
    private static final String PREFIX = "polyclave_";

    private final TokenMapper tokens;
    private final AccountService accounts;

    TokenService(TokenMapper tokens, AccountService accounts) {
        this.tokens = tokens;
        this.accounts = accounts;
    }

    /** What a token may be used for. */
    public enum Scope {
        READ,
        WRITE
    }

    /** @param lastUsedAt null if it was never used */
    public record Token(
            long id,
            String name,
            Scope scope,
            String createdAt,
            @Nullable String lastUsedAt) {}

    /** A new token with its secret, which cannot be had again. */
    public record NewToken(long id, String secret) {}

    /** Who a token speaks for, and how far. */
    record Bearer(SignedIn who, Scope scope) {}

    public List<Token> all(Account account) {
        return tokens.all(account.id()).stream()
                .map(t -> new Token(t.id(), t.name(), Scope.valueOf(t.scope()), t.createdAt(), t.lastUsedAt()))
                .toList();
    }

    @Transactional
    public NewToken create(Account account, String name, Scope scope) {
        List<Token> known = all(account);
        if (known.size() >= MOST) {
            throw Problems.unprocessable(
                    ProblemCode.TOO_MANY_TOKENS,
                    "You have " + MOST + " tokens. Revoke some first.",
                    java.util.Map.of());
        }
        if (known.stream().anyMatch(t -> t.name().equals(name))) {
            throw Problems.badRequest(
                    ProblemCode.NAME, "You have a token '" + name + "' already. Choose another name.");
        }
        String secret = PREFIX + Secrets.random();
        return new NewToken(tokens.insert(account.id(), name, Secrets.hash(secret), scope.name()), secret);
    }

    @Transactional
    public void revoke(Account account, long id) {
        if (tokens.remove(account.id(), id) == 0) {
            throw Problems.notFound();
        }
    }

    Optional<Bearer> bearer(String secret) {
        return tokens.bearer(Secrets.hash(secret))
                .map(b -> new Bearer((SignedIn) accounts.loadUserByUsername(b.account()), Scope.valueOf(b.scope())));
    }
}
