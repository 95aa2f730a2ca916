package org.polyclave.server.account.web;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.platform.Problems;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Accounts, for administrators only. */
@RestController
@RequestMapping("/api/accounts")
class AccountController {
    record AccountRequest(String name, String displayName, String password, boolean administrator) {}

    private final AccountService accounts;

    AccountController(AccountService accounts) {
        this.accounts = accounts;
    }

    @GetMapping
    List<Account> all(@AuthenticationPrincipal @Nullable SignedIn who) {
        requireAdministrator(who);
        return accounts.all();
    }

    @PostMapping
    Account create(@RequestBody AccountRequest request, @AuthenticationPrincipal @Nullable SignedIn who) {
        requireAdministrator(who);
        return accounts.create(request.name(), request.displayName(), request.password(), request.administrator());
    }

    private static void requireAdministrator(@Nullable SignedIn who) {
        if (who == null || !who.account().administrator()) {
            throw Problems.notFound();
        }
    }
}
