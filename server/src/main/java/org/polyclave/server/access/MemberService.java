package org.polyclave.server.access;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.polyclave.server.access.persistence.AccessMapper;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Who shares a study, and in which role. */
@Service
public class MemberService {
    private final AccessMapper studies;
    private final AccountService accounts;

    MemberService(AccessMapper studies, AccountService accounts) {
        this.studies = studies;
        this.accounts = accounts;
    }

    public record Member(String name, String displayName, Role role) {}

    public List<Member> members(OpenStudy open) {
        return studies.members(open.id()).stream()
                .map(m -> new Member(m.name(), m.displayName(), Role.valueOf(m.role())))
                .toList();
    }

    /** The role of an account in the study; empty if it is not shared with it. */
    public Optional<Role> roleOf(OpenStudy open, String name) {
        return members(open).stream()
                .filter(m -> m.name().equals(name))
                .map(Member::role)
                .findFirst();
    }

    /** @throws org.springframework.web.ErrorResponseException if the study would be left without an owner */
    @Transactional
    public void share(OpenStudy open, String name, Role role) {
        Account account = accounts.find(name)
                .orElseThrow(() -> Problems.badRequest(
                        ProblemCode.NO_SUCH_ACCOUNT,
                        "The account '" + name + "' does not exist. Ask your administrator to create one."));
        if (role != Role.OWNER) {
            members(open).stream().filter(m -> m.name().equals(account.name())).forEach(m -> keepAnOwner(open, m));
        }
        studies.putMember(open.id(), account.id(), role.name());
    }

    /** @throws org.springframework.web.ErrorResponseException if the study would be left without an owner */
    @Transactional
    public void unshare(OpenStudy open, String name) {
        Member gone = members(open).stream()
                .filter(m -> m.name().equals(name))
                .findFirst()
                .orElseThrow(Problems::notFound);
        keepAnOwner(open, gone);
        studies.removeMember(open.id(), name);
    }

    /** Refuses to take the last owner's role: nobody could ever share, or give away, the study again. */
    private void keepAnOwner(OpenStudy open, Member member) {
        boolean onlyOwner = member.role() == Role.OWNER
                && members(open).stream().filter(m -> m.role() == Role.OWNER).count() == 1;
        if (onlyOwner) {
            throw Problems.unprocessable(
                    ProblemCode.ONLY_OWNER,
                    "'" + member.displayName() + "' is the study's only owner. Make another member an owner first.",
                    Map.of());
        }
    }
}
