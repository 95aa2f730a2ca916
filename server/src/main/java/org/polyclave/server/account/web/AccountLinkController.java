package org.polyclave.server.account.web;

import org.polyclave.server.account.Account;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.platform.Problems;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Links that set a password once. Their secret travels in bodies only, so that it stands in no log. */
@RestController
@RequestMapping("/api/v1/account-links")
class AccountLinkController {
    record LinkRequest(String secret) {}

    record UseLinkRequest(String secret, String password) {}

    record LinkResponse(String name, String displayName) {}

    private final AccountService accounts;

    AccountLinkController(AccountService accounts) {
        this.accounts = accounts;
    }

    /** Whom a link is for. */
    @PostMapping("/look")
    LinkResponse look(@RequestBody LinkRequest request) {
        return accounts.ofLink(request.secret())
                .map(AccountLinkController::response)
                .orElseThrow(Problems::notFound);
    }

    /** Chooses the password. */
    @PostMapping("/use")
    LinkResponse use(@RequestBody UseLinkRequest request) {
        return response(accounts.useLink(request.secret(), request.password()));
    }

    private static LinkResponse response(Account account) {
        return new LinkResponse(account.name(), account.displayName());
    }
}
