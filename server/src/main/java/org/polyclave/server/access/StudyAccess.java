package org.polyclave.server.access;

import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.persistence.AccessMapper;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.platform.Problems;
import org.springframework.stereotype.Component;

/** Opens studies for those who may see them. To everybody else a study does not exist. */
@Component
public class StudyAccess {
    private final AccessMapper studies;
    private final BlindScorers blindScorers;

    StudyAccess(AccessMapper studies, BlindScorers blindScorers) {
        this.studies = studies;
        this.blindScorers = blindScorers;
    }

    /** Who scores without seeing the others' scores; told by the feature that keeps it. */
    public interface BlindScorers {
        boolean isBlind(long study, long account);
    }

    /** The study, if the account has at least the role {@code needed}; else it is not found, or the role is too low. */
    OpenStudy open(String slug, @Nullable SignedIn who, Role needed) {
        if (who == null) {
            throw Problems.notFound();
        }
        long account = who.account().id();
        AccessMapper.StudyHead head = studies.find(slug, account).orElseThrow(Problems::notFound);
        return opened(head, account).require(needed);
    }

    /** The same for a job that somebody began: it may only do what they still may. */
    public OpenStudy open(long study, long account, Role needed) {
        AccessMapper.StudyHead head = studies.findById(study, account).orElseThrow(Problems::notFound);
        OpenStudy open = opened(head, account).require(needed);
        refuseBlind(open);
        return open;
    }

    private OpenStudy opened(AccessMapper.StudyHead head, long account) {
        return new OpenStudy(
                head.id(),
                head.slug(),
                head.title(),
                head.revision(),
                Role.valueOf(head.role()),
                account,
                blindScorers.isBlind(head.id(), account));
    }

    /** Those who score blind are told to hand theirs in first. */
    static void refuseBlind(OpenStudy open) {
        if (open.blind()) {
            throw Problems.forbidden("You are scoring this study blind. Until you hand your scores in, nothing is shown"
                    + " that could tell you what others scored.");
        }
    }

    /** For work that the installation itself does in somebody's name. */
    public OpenStudy asOwner(String slug, long account) {
        AccessMapper.StudyHead head = studies.find(slug, account).orElseThrow(Problems::notFound);
        return new OpenStudy(head.id(), head.slug(), head.title(), head.revision(), Role.OWNER, account, false);
    }
}
