package org.polyclave.server.job;

import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.account.Account;

/**
 * Who may know of a job: all who have the study open that it is of, or one account.
 *
 * @param study null for what is of an account alone
 */
public record JobScope(@Nullable Long study, long account) {
    public static JobScope of(OpenStudy open) {
        return new JobScope(open.id(), open.account());
    }

    public static JobScope of(Account who) {
        return new JobScope(null, who.id());
    }

    boolean includes(Job job) {
        return study == null ? job.ofStudy() == null && job.account() == account : study.equals(job.ofStudy());
    }
}
