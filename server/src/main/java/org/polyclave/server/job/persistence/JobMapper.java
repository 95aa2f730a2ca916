package org.polyclave.server.job.persistence;

import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Jobs and their answers. */
@Mapper
public interface JobMapper {
    /** A job without its answer. */
    record JobRow(
            String id, String kind, long studyId, long revision, String question, String status, double progress) {}

    @Insert("""
            insert into job (id, kind, study_id, revision, question, account_id)
            values (#{id}::uuid, #{kind}, #{study}, #{revision}, #{question}, #{account})
            """)
    void insert(String id, String kind, long study, long revision, String question, long account);

    /** Somebody's answer to the same question, or a job of one's own that is not over. */
    @Select("""
            select id::text as id, kind, study_id, revision, question, status, progress from job
            where study_id = #{study} and kind = #{kind} and revision = #{revision} and question = #{question} and not stopping
              and (status = 'DONE' or account_id = #{account} and status in ('QUEUED', 'RUNNING'))
            order by created_at desc limit 1
            """)
    Optional<JobRow> alike(String kind, long study, long revision, String question, long account);

    @Select(
            "select id::text as id, kind, study_id, revision, question, status, progress from job where id = #{id}::uuid")
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
            update job set status = #{status}, progress = 1, answer = nullif(#{answer}, '')::jsonb,
                problem = nullif(#{problem}, '')::jsonb, ended_at = now()
            where id = #{id}::uuid
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
