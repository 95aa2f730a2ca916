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

    StudyAccess(StudyMapper studies) {
        this.studies = studies;
    }

    /** A study that an account may see, with the account's role in it. */
    public record Open(long id, String slug, String title, long revision, Role role, long account) {}

    /** The study, if the account has at least the role {@code needed}; else it is not found, or the role is too low. */
    public Open require(String slug, @Nullable SignedIn who, Role needed) {
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
                who.account().id());
    }
}
