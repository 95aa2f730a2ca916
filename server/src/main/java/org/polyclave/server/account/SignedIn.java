package org.polyclave.server.account;

import java.util.Collection;
import java.util.List;
import org.springframework.security.core.GrantedAuthority;
import org.springframework.security.core.userdetails.UserDetails;

/** The principal of a session. */
public final class SignedIn implements UserDetails {
    private static final long serialVersionUID = 1;

    private final Account account;
    private final String passwordHash;

    SignedIn(Account account, String passwordHash) {
        this.account = account;
        this.passwordHash = passwordHash;
    }

    public Account account() {
        return account;
    }

    @Override
    public Collection<? extends GrantedAuthority> getAuthorities() {
        return List.of();
    }

    @Override
    public String getPassword() {
        return passwordHash;
    }

    @Override
    public String getUsername() {
        return account.name();
    }
}
