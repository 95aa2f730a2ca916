package org.polyclave.server.secondopinion;

import org.polyclave.server.access.StudyAccess;
import org.polyclave.server.secondopinion.persistence.AssignmentMapper;
import org.springframework.stereotype.Component;

/** Tells the studies who may not see scores now. */
@Component
class OpenAssignments implements StudyAccess.BlindScorers {
    private final AssignmentMapper assignments;

    OpenAssignments(AssignmentMapper assignments) {
        this.assignments = assignments;
    }

    @Override
    public boolean isBlind(long study, long account) {
        return assignments.hasOpen(study, account);
    }
}
