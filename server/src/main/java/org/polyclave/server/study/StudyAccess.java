package org.polyclave.server.study;

import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.study.persistence.StudyMapper;
import org.springframework.stereotype.Component;

/** Who may do what in a study. To everybody else the study does not exist. */
@Component
public class StudyAccess {
    private final StudyMapper studies;
    private final BlindScorers blindScorers;

    StudyAccess(StudyMapper studies, BlindScorers blindScorers) {
        this.studies = studies;
        this.blindScorers = blindScorers;
    }

    /** Who scores without seeing the others' scores; told by the feature that keeps it. */
    public interface BlindScorers {
        boolean isBlind(long study, long account);
    }

    /**
     * A study that an account may see, with the account's role in it.
     *
     * @param blind whether the account scores blind now and may not see what others scored
     */
    public record Open(long id, String slug, String title, long revision, Role role, long account, boolean blind) {}

    /** The same for what shows scores: those who score blind are told to hand theirs in first. */
    public Open require(String slug, @Nullable SignedIn who, Role needed) {
        Open open = requireEvenBlind(slug, who, needed);
        if (open.blind()) {
            throw Problems.forbidden("You are scoring this study blind. Until you hand your scores in, nothing is shown"
                    + " that could tell you what others scored.");
        }
        return open;
    }

    /** The study, if the account has at least the role {@code needed}; else it is not found, or the role is too low. */
    public Open requireEvenBlind(String slug, @Nullable SignedIn who, Role needed) {
        if (who == null) {
            throw Problems.notFound();
        }
        StudyMapper.StudyHead head = studies.find(slug, who.account().id()).orElseThrow(Problems::notFound);
        Role role = Role.valueOf(head.role());
        if (!role.reaches(needed)) {
            throw Problems.forbidden("This takes the role '" + needed.name().toLowerCase(java.util.Locale.ROOT)
                    + "' in this study. Ask its owner.");
        }
        return new Open(
                head.id(),
                head.slug(),
                head.title(),
                head.revision(),
                role,
                who.account().id(),
                blindScorers.isBlind(head.id(), who.account().id()));
    }
}
