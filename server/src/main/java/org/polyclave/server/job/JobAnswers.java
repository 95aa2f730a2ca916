package org.polyclave.server.job;

import java.util.concurrent.CancellationException;
import org.polyclave.server.job.persistence.JobMapper;
import org.springframework.stereotype.Component;

/** For kinds of jobs that write. */
@Component
public class JobAnswers {
    private final JobMapper jobs;

    JobAnswers(JobMapper jobs) {
        this.jobs = jobs;
    }

    /**
     * Notes the answer of a job in the transaction in which the job wrote: the two are kept together or not at all, so that a job
     * that is run again after a crash does not write twice.
     *
     * @throws CancellationException if somebody stopped the job before
     */
    public void finish(Job job, String answer) {
        if (jobs.finish(job.id().toString(), answer) == 0) {
            throw new CancellationException("The job was stopped, or is over");
        }
    }
}
