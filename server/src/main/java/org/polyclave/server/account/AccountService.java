package org.polyclave.server.account;

import java.util.List;
import java.util.Optional;
import org.polyclave.server.account.persistence.AccountMapper;
import org.polyclave.server.account.persistence.AccountRow;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Accounts; there is no self-registration. */
@Service
public class AccountService implements UserDetailsService {
    private static final int SHORTEST_PASSWORD = 10;

    private final AccountMapper accounts;
    private final PasswordEncoder encoder;
    private final String firstAdminPassword;

    AccountService(
            AccountMapper accounts,
            PasswordEncoder encoder,
            @Value("${polyclave.first-admin-password}") String firstAdminPassword) {
        this.accounts = accounts;
        this.encoder = encoder;
        this.firstAdminPassword = firstAdminPassword;
    }

    /** The first administrator is made by the launcher's password, in an installation without accounts. */
    @EventListener(ApplicationReadyEvent.class)
    void makeFirstAdministrator() {
        if (!firstAdminPassword.isEmpty() && accounts.all().isEmpty()) {
            create("admin", "Administrator", firstAdminPassword, true);
        }
    }

    @Override
    public UserDetails loadUserByUsername(String name) {
        AccountRow row = accounts.find(name).orElseThrow(() -> new UsernameNotFoundException("No such account"));
        return new SignedIn(account(row), row.passwordHash());
    }

    public Optional<Account> find(String name) {
        return accounts.find(name).map(AccountService::account);
    }

    public String displayName(long account) {
        return accounts.displayName(account);
    }

    public List<Account> all() {
        return accounts.all().stream().map(AccountService::account).toList();
    }

    @Transactional
    public Account create(String name, String displayName, String password, boolean administrator) {
        if (!name.matches("[a-z0-9._-]{2,40}")) {
            throw Problems.badRequest(
                    ProblemCode.ACCOUNT_NAME,
                    "An account's name has 2 to 40 of these: a–z, 0–9, dot, hyphen, underscore.");
        }
        if (password.length() < SHORTEST_PASSWORD) {
            throw Problems.badRequest(
                    ProblemCode.PASSWORD, "A password has at least " + SHORTEST_PASSWORD + " characters.");
        }
        if (accounts.find(name).isPresent()) {
            throw Problems.badRequest(
                    ProblemCode.ACCOUNT_TAKEN, "The account '" + name + "' exists already. Choose another name.");
        }
        accounts.insert(name, displayName.isBlank() ? name : displayName, encoder.encode(password), administrator);
        return find(name).orElseThrow();
    }

    private static Account account(AccountRow row) {
        return new Account(row.id(), row.name(), row.displayName(), row.administrator());
    }
}
