package org.polyclave.server.account;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
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
    /** The encoder reads no more, so that more would only seem to protect. */
    private static final int LONGEST_PASSWORD = 72;

    private static final int LONGEST_DISPLAY_NAME = 80;
    /** Of a link: who is invited on a Friday finds it on Monday. */
    private static final int HOURS = 72;

    private final AccountMapper accounts;
    private final PasswordEncoder encoder;
    private final OpenSessions sessions;
    private final String firstAdminPassword;
    /** Of who has not chosen a password yet: nothing that anybody types matches it, and trying takes as long. */
    private final String noPassword;

    AccountService(
            AccountMapper accounts,
            PasswordEncoder encoder,
            OpenSessions sessions,
            @Value("${polyclave.first-admin-password}") String firstAdminPassword) {
        this.accounts = accounts;
        this.encoder = encoder;
        this.sessions = sessions;
        this.firstAdminPassword = firstAdminPassword;
        noPassword = String.valueOf(encoder.encode(Secrets.random()));
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
        AccountRow row = accounts.find(name)
                .filter(AccountRow::active)
                .orElseThrow(() -> new UsernameNotFoundException("No such account"));
        return new SignedIn(account(row), row.passwordHash() == null ? noPassword : row.passwordHash());
    }

    public Optional<Account> find(String name) {
        return accounts.find(name).map(AccountService::account);
    }

    public String displayName(long account) {
        return accounts.displayName(account);
    }

    /**
     * An account as administrators see it.
     *
     * @param invited whether nobody has chosen its password yet
     */
    public record Administered(
            String name, String displayName, boolean administrator, boolean active, boolean invited) {}

    /** A link that sets a password once; it is told only now. */
    public record Link(String account, String secret, int hours) {}

    public List<Administered> all() {
        return accounts.all().stream()
                .map(a -> new Administered(
                        a.name(), a.displayName(), a.administrator(), a.active(), a.passwordHash() == null))
                .toList();
    }

    /** For what makes accounts without people: the launcher and the demo. */
    @Transactional
    public Account create(String name, String displayName, String password, boolean administrator) {
        return insert(name, displayName, encoded(password), administrator);
    }

    /** An account whose password whoever has the link will choose. */
    @Transactional
    public Link invite(String name, String displayName, boolean administrator) {
        return link(insert(name, displayName, null, administrator));
    }

    private Account insert(String name, String displayName, @Nullable String hash, boolean administrator) {
        if (!name.matches("[a-z0-9._-]{2,40}")) {
            throw Problems.badRequest(
                    ProblemCode.ACCOUNT_NAME,
                    "An account's name has 2 to 40 of these: a–z, 0–9, dot, hyphen, underscore.");
        }
        if (accounts.find(name).isPresent()) {
            throw Problems.badRequest(
                    ProblemCode.ACCOUNT_TAKEN, "The account '" + name + "' exists already. Choose another name.");
        }
        accounts.insert(name, displayName.isBlank() ? name : named(displayName), hash, administrator);
        return find(name).orElseThrow();
    }

    private static String named(String displayName) {
        String name = displayName.strip();
        if (name.isEmpty() || name.length() > LONGEST_DISPLAY_NAME) {
            throw Problems.badRequest(ProblemCode.NAME, "A name has 1 to " + LONGEST_DISPLAY_NAME + " characters.");
        }
        return name;
    }

    private String encoded(String password) {
        int bytes = password.getBytes(StandardCharsets.UTF_8).length;
        if (password.length() < SHORTEST_PASSWORD || bytes > LONGEST_PASSWORD) {
            throw Problems.badRequest(
                    ProblemCode.PASSWORD,
                    "A password has " + SHORTEST_PASSWORD + " to " + LONGEST_PASSWORD + " characters.");
        }
        return String.valueOf(encoder.encode(password));
    }

    /** A link by which somebody who forgot the password chooses a new one; the old one is good until then. */
    @Transactional
    public Link reset(String name) {
        return link(find(name).orElseThrow(Problems::notFound));
    }

    private Link link(Account account) {
        String secret = Secrets.random();
        accounts.link(account.id(), Secrets.hash(secret), HOURS);
        return new Link(account.name(), secret, HOURS);
    }

    /** Whom a link is for; empty for one that was used, replaced or is too old. */
    public Optional<Account> ofLink(String secret) {
        return accounts.ofLink(Secrets.hash(secret)).map(AccountService::account);
    }

    /** Sets the password that a link is for, and ends every session that knew the old one. */
    @Transactional
    public Account useLink(String secret, String password) {
        byte[] hash = Secrets.hash(secret);
        Account account = accounts.ofLink(hash).map(AccountService::account).orElseThrow(Problems::notFound);
        String encoded = encoded(password);
        if (accounts.useLink(hash) == 0) {
            throw Problems.notFound();
        }
        accounts.setPassword(account.id(), encoded);
        sessions.end(account, "");
        return account;
    }

    /** Switched off, an account cannot sign in, its tokens are refused and its sessions end; what it did stays. */
    @Transactional
    public void setActive(String name, boolean active, Account administrator) {
        Account account = find(name).orElseThrow(Problems::notFound);
        List<Long> administrators = accounts.lockAdministrators();
        if (!active && account.id() == administrator.id()) {
            throw Problems.badRequest(
                    ProblemCode.ACCOUNT_OWN, "You cannot switch off your own account. Another administrator can.");
        }
        if (!active && administrators.size() == 1 && administrators.contains(account.id())) {
            throw Problems.badRequest(ProblemCode.ACCOUNT_OWN, "Somebody must administer. Name another first.");
        }
        accounts.setActive(account.id(), active);
        if (!active) {
            sessions.end(account, "");
        }
    }

    @Transactional
    public Account rename(Account account, String displayName) {
        accounts.rename(account.id(), named(displayName));
        return find(account.name()).orElseThrow();
    }

    public boolean isPassword(Account account, String typed) {
        return accounts.find(account.name())
                .map(AccountRow::passwordHash)
                .filter(known -> encoder.matches(typed, known))
                .isPresent();
    }

    /** @param session the one that stays; all others end */
    @Transactional
    public void changePassword(Account account, String password, String session) {
        accounts.setPassword(account.id(), encoded(password));
        sessions.end(account, session);
    }

    private static Account account(AccountRow row) {
        return new Account(row.id(), row.name(), row.displayName(), row.administrator());
    }
}
