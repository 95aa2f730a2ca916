package org.polyclave.server.job.persistence;

import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Jobs and their answers. */
@Mapper
public interface JobMapper {
    /** A job without its answer. */
    record JobRow(
            String id,
            String kind,
            @Nullable Long studyId,
            long accountId,
            long revision,
            String question,
            String status,
            double progress) {}

    @Insert("""
            insert into job (id, kind, study_id, revision, question, account_id)
            values (#{id}::uuid, #{kind}, #{study}, #{revision}, #{question}, #{account})
            """)
    void insert(String id, String kind, @Nullable Long study, long revision, String question, long account);

    /**
     * Somebody's answer to the same question, or a job of one's own that is not over.
     *
     * @param answered whether one that is done will do
     */
    @Select("""
            select id::text as id, kind, study_id, account_id, revision, question, status, progress from job
            where study_id is not distinct from #{study,jdbcType=BIGINT} and kind = #{kind} and revision = #{revision} and question = #{question} and not stopping
              and (#{answered} and status = 'DONE' and (study_id is not null or account_id = #{account}) or account_id = #{account} and status in ('QUEUED', 'RUNNING'))
            order by created_at desc limit 1
            """)
    Optional<JobRow> alike(
            String kind, @Nullable Long study, long revision, String question, long account, boolean answered);

    @Select(
            "select id::text as id, kind, study_id, account_id, revision, question, status, progress from job where id = #{id}::uuid")
    Optional<JobRow> find(String id);

    @Select("select coalesce(answer::text, '') from job where id = #{id}::uuid")
    String answer(String id);

    @Select("select coalesce(problem::text, '') from job where id = #{id}::uuid")
    String problem(String id);

    @Update(
            "update job set status = 'RUNNING' where id = #{id}::uuid and status in ('QUEUED', 'RUNNING') and not stopping")
    int begin(String id);

    /** Writes the progress and tells whether somebody wants the job to stop. */
    @Select("update job set progress = #{progress} where id = #{id}::uuid returning stopping")
    Optional<Boolean> report(String id, double progress);

    @Update("""
            update job set status = 'DONE', progress = 1, answer = #{answer}::jsonb, ended_at = now()
            where id = #{id}::uuid and status = 'RUNNING' and not stopping
            """)
    int finish(String id, String answer);

    /** What the answer would be if the job ended now. */
    @Update("update job set answer = #{answer}::jsonb where id = #{id}::uuid and status = 'RUNNING'")
    void keepSoFar(String id, String answer);

    /** One that is over stays as it is. */
    @Update("""
            update job set status = #{status}, progress = 1, answer = nullif(#{answer}, '')::jsonb,
                problem = nullif(#{problem}, '')::jsonb, ended_at = now()
            where id = #{id}::uuid and status in ('QUEUED', 'RUNNING')
            """)
    void end(String id, String status, String answer, String problem);

    @Update("""
            update job set stopping = true, status = case when status = 'QUEUED' then 'CANCELLED' else status end,
                ended_at = case when status = 'QUEUED' then now() else ended_at end
            where id = #{id}::uuid and status in ('QUEUED', 'RUNNING')
            """)
    void stop(String id);

    @Delete("delete from job where ended_at < now() - interval '1 day'")
    void purge();
}
