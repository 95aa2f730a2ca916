package org.polyclave.server.account.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.Current;
import org.polyclave.server.account.TokenService;
import org.polyclave.server.platform.Created;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** An account's own tokens for scripts. A token cannot manage tokens. */
@RestController
@RequestMapping("/api/v1/tokens")
class TokenController {
    /** @param name by which its owner knows it */
    record TokenRequest(@NotBlank @Size(max = 60) String name, TokenService.Scope scope) {}

    private final TokenService tokens;

    TokenController(TokenService tokens) {
        this.tokens = tokens;
    }

    /** The account's tokens, without their secrets. */
    @GetMapping
    List<TokenService.Token> tokens(@Current(byToken = false) Account account) {
        return tokens.all(account);
    }

    /** Creates a token. Its secret is in this answer only. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    ResponseEntity<TokenService.NewToken> createToken(
            @Current(byToken = false) Account account, @Valid @RequestBody TokenRequest request) {
        TokenService.NewToken made = tokens.create(account, request.name().strip(), request.scope());
        return Created.at(made, "/api/v1/tokens/{id}", made.id());
    }

    /** Makes a token invalid at once. */
    @DeleteMapping("/{id}")
    void revokeToken(@Current(byToken = false) Account account, @PathVariable long id) {
        tokens.revoke(account, id);
    }
}
