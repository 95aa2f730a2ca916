package org.polyclave.server.account.web;

import java.util.List;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.account.Current;
import org.polyclave.server.platform.Created;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Accounts, for administrators only. */
@RestController
@RequestMapping("/api/v1/accounts")
class AccountController {
    record AccountRequest(String name, String displayName, String password, boolean administrator) {}

    record InvitationRequest(String name, String displayName, boolean administrator) {}

    record ActiveRequest(boolean active) {}

    private final AccountService accounts;

    AccountController(AccountService accounts) {
        this.accounts = accounts;
    }

    /** All accounts, for administrators. */
    @GetMapping
    List<AccountService.Administered> accounts(@Current(administrator = true) Account administrator) {
        return accounts.all();
    }

    /** Creates an account with a password; for people an invitation is better: nobody else knows what they choose. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    ResponseEntity<Account> create(
            @Current(administrator = true) Account administrator, @RequestBody AccountRequest request) {
        Account made =
                accounts.create(request.name(), request.displayName(), request.password(), request.administrator());
        return Created.at(made, "/api/v1/accounts/{name}", made.name());
    }

    /** Creates an account whose password is chosen by whoever gets the link. The secret of the link is told only here. */
    @PostMapping("/invitations")
    AccountService.Link invite(
            @Current(administrator = true) Account administrator, @RequestBody InvitationRequest request) {
        return accounts.invite(request.name(), request.displayName(), request.administrator());
    }

    /** A link by which somebody who forgot the password chooses a new one. A link before it is no longer good. */
    @PostMapping("/{account}/reset")
    AccountService.Link reset(@Current(administrator = true) Account administrator, @PathVariable String account) {
        return accounts.reset(account);
    }

    /** Switches an account off, or on again. */
    @PutMapping("/{account}/active")
    void activate(
            @Current(administrator = true) Account administrator,
            @PathVariable String account,
            @RequestBody ActiveRequest request) {
        accounts.setActive(account, request.active(), administrator);
    }
}
