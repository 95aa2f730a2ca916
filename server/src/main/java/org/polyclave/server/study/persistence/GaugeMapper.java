package org.polyclave.server.study.persistence;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
public interface GaugeMapper {
    /** A study as one account sees it. */
    record StudyHead(long id, String slug, String title, long revision, String role) {}

    @Select("""
            select s.id, s.slug, s.title, s.revision, m.role from study s join study_member m on m.study_id = s.id
            where m.account_id = #{account} order by lower(s.title), s.id
            """)
    List<StudyHead> studiesOf(long account);

    /** Gauges of a study as they were worked out at a revision. */
    @Select("select body::text from study_gauges where study_id = #{study} and revision = #{revision}")
    Optional<String> gauges(long study, long revision);

    @Insert("""
            insert into study_gauges (study_id, revision, body) values (#{study}, #{revision}, #{body}::jsonb)
            on conflict (study_id) do update set revision = excluded.revision, body = excluded.body
            where study_gauges.revision < excluded.revision
            """)
    void putGauges(long study, long revision, String body);
}
