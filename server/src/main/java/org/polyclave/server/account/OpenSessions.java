package org.polyclave.server.account;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Component;

/** Sessions of an account: where it is signed in. */
@Component
public class OpenSessions {
    private final FindByIndexNameSessionRepository<? extends Session> sessions;

    OpenSessions(FindByIndexNameSessionRepository<? extends Session> sessions) {
        this.sessions = sessions;
    }

    /** @param here whether it is the one that asks */
    public record OpenSession(Instant began, Instant lastUsed, boolean here) {}

    /** The one used last first. */
    public List<OpenSession> of(Account account, String here) {
        return sessions.findByPrincipalName(account.name()).values().stream()
                .map(s -> new OpenSession(
                        s.getCreationTime(), s.getLastAccessedTime(), s.getId().equals(here)))
                .sorted(Comparator.comparing(OpenSession::lastUsed).reversed())
                .toList();
    }

    /** @param but id of a session that goes on; empty for none */
    public void end(Account account, String but) {
        sessions.findByPrincipalName(account.name()).keySet().stream()
                .filter(id -> !id.equals(but))
                .forEach(sessions::deleteById);
    }
}
