package org.polyclave.server.account.web;

import java.util.List;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.account.Current;
import org.polyclave.server.platform.Created;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Accounts, for administrators only. */
@RestController
@RequestMapping("/api/v1/accounts")
class AccountController {
    record AccountRequest(String name, String displayName, String password, boolean administrator) {}

    private final AccountService accounts;

    AccountController(AccountService accounts) {
        this.accounts = accounts;
    }

    /** All accounts, for administrators. */
    @GetMapping
    List<Account> accounts(@Current(administrator = true) Account administrator) {
        return accounts.all();
    }

    /** Creates an account. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    ResponseEntity<Account> create(
            @Current(administrator = true) Account administrator, @RequestBody AccountRequest request) {
        Account made =
                accounts.create(request.name(), request.displayName(), request.password(), request.administrator());
        return Created.at(made, "/api/v1/accounts/{name}", made.name());
    }
}
