package org.polyclave.server.study.persistence;

import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
public interface GaugeMapper {
    /**
     * A study as one account sees it.
     *
     * @param gauges as they were worked out at this revision; empty if something changed since
     */
    record StudyLine(
            long id,
            String slug,
            String title,
            long revision,
            String role,
            String gauges,
            int editions,
            boolean blind) {}

    @Select("""
            select s.id, s.slug, s.title, s.revision, m.role, coalesce(g.body::text, '') as gauges,
                (select count(*) from edition e where e.study_id = s.id) as editions,
                exists (select 1 from assignment a
                    where a.study_id = s.id and a.scorer_id = m.account_id and a.finished_at is null) as blind
            from study_member m join study s on s.id = m.study_id
            left join study_gauges g on g.study_id = s.id and g.revision = s.revision
            where m.account_id = #{account} order by lower(s.title), s.id limit #{count} offset #{from}
            """)
    List<StudyLine> studies(long account, int from, int count);

    @Select("select count(*) from study_member where account_id = #{account}")
    int count(long account);

    @Insert("""
            insert into study_gauges (study_id, revision, body) values (#{study}, #{revision}, #{body}::jsonb)
            on conflict (study_id) do update set revision = excluded.revision, body = excluded.body
            where study_gauges.revision < excluded.revision
            """)
    void putGauges(long study, long revision, String body);
}
