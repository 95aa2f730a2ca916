package org.polyclave.server.secondopinion.persistence;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Who is to score which cells without seeing what others hold of them. */
@Mapper
public interface AssignmentMapper {
    /** {@code rows} and {@code characters} are JSON arrays of identifiers; empty ones mean all. */
    record AssignmentRow(
            long id,
            long scorerId,
            String scorer,
            String scorerName,
            String rows,
            String characters,
            String note,
            String givenAt,
            @Nullable String finishedAt) {}

    String SELECT = """
            select a.id, a.scorer_id, s.name as scorer, s.display_name as scorer_name, a.rows::text as rows,
                   a.characters::text as characters, a.note, to_char(a.given_at at time zone 'UTC', 'YYYY-MM-DD') as given_at,
                   to_char(a.finished_at at time zone 'UTC', 'YYYY-MM-DD') as finished_at
            from assignment a join account s on s.id = a.scorer_id
            """;

    @Select(SELECT + "where a.study_id = #{study} order by a.id desc")
    List<AssignmentRow> all(long study);

    @Select(SELECT + "where a.study_id = #{study} and a.id = #{id}")
    Optional<AssignmentRow> find(long study, long id);

    @Select("""
            select exists (select 1 from assignment
                where study_id = #{study} and scorer_id = #{account} and finished_at is null)
            """)
    boolean hasOpen(long study, long account);

    @Insert("""
            insert into assignment (study_id, scorer_id, rows, characters, note, given_by)
            values (#{study}, #{scorer}, #{rows}::jsonb, #{characters}::jsonb, #{note}, #{by})
            """)
    void insert(long study, long scorer, String rows, String characters, String note, long by);

    @Update(
            "update assignment set finished_at = now() where study_id = #{study} and id = #{id} and finished_at is null")
    int finish(long study, long id);
}
