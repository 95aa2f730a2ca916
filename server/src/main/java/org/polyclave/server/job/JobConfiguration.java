package org.polyclave.server.job;

import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.task.FailureHandler;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import java.time.Duration;
import javax.sql.DataSource;
import org.polyclave.server.job.persistence.JobMapper;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.DependsOn;

/** The queue of jobs: in the database, so that any server takes any job and a killed one's are taken over. */
@Configuration
class JobConfiguration {
    /** A large import or two leave room for a key. */
    private static final int AT_ONCE = 4;

    @Bean
    OneTimeTask<Void> jobTask(JobRunner runner) {
        return Tasks.oneTime("job")
                .onFailure(new FailureHandler.OnFailureRetryLater<>(Duration.ofSeconds(1)))
                .execute((instance, context) -> runner.run(
                        instance.getId(), () -> context.getSchedulerState().isShuttingDown()));
    }

    @Bean(initMethod = "start", destroyMethod = "stop")
    @DependsOn("flywayInitializer")
    Scheduler scheduler(
            DataSource database, OneTimeTask<Void> jobTask, JobMapper jobs, ObjectProvider<Retention> retention) {
        RecurringTask<Void> purge = Tasks.recurring("purge-jobs", FixedDelay.ofHours(6))
                .execute((instance, context) -> {
                    jobs.purge();
                    retention.forEach(Retention::forget);
                });
        return Scheduler.create(database, jobTask)
                .startTasks(purge)
                .threads(AT_ONCE)
                .pollingInterval(Duration.ofSeconds(1))
                .heartbeatInterval(Duration.ofSeconds(5))
                .enableImmediateExecution()
                .shutdownMaxWait(Duration.ofSeconds(5))
                .build();
    }
}
