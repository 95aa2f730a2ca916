package org.polyclave.server.study.persistence;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Studies beside one another, and what becomes of them. */
@Mapper
public interface StudyListMapper {
    /**
     * A study as one account sees it.
     *
     * @param gauges as they were worked out at this revision; empty if something changed since
     * @param changed day of the latest change, ISO 8601
     * @param who made it; empty if nothing changed since it was made
     */
    record StudyLine(
            long id,
            String slug,
            String title,
            long revision,
            String role,
            String gauges,
            int editions,
            boolean blind,
            String changed,
            String who) {}

    /** Conditions of the list and of its count: {@code which} is CURRENT, ARCHIVED or DELETED; only owners see the last. */
    String LISTED = """
            m.account_id = #{account} and strpos(lower(s.title), lower(#{find})) > 0
            and case #{which} when 'DELETED' then s.deleted_at is not null and m.role = 'OWNER'
                when 'ARCHIVED' then s.deleted_at is null and s.archived_at is not null
                else s.deleted_at is null and s.archived_at is null end
            """;

    @Select("""
            select s.id, s.slug, s.title, s.revision, m.role, coalesce(g.body::text, '') as gauges,
                (select count(*) from edition e where e.study_id = s.id) as editions,
                exists (select 1 from assignment a
                    where a.study_id = s.id and a.scorer_id = m.account_id and a.finished_at is null) as blind,
                to_char(coalesce(c.at, s.created_at) at time zone 'UTC', 'YYYY-MM-DD') as changed,
                coalesce(c.display_name, '') as who
            from study_member m join study s on s.id = m.study_id
            left join study_gauges g on g.study_id = s.id and g.revision = s.revision
            left join lateral (select h.at, a.display_name from change_set h join account a on a.id = h.account_id
                where h.study_id = s.id order by h.revision desc limit 1) c on true
            where
            """ + LISTED + """
            order by case when #{newestFirst} then coalesce(c.at, s.created_at) end desc nulls last, lower(s.title), s.id
            limit #{count} offset #{from}
            """)
    List<StudyLine> studies(long account, String find, String which, boolean newestFirst, int from, int count);

    @Select("select count(*) from study_member m join study s on s.id = m.study_id where " + LISTED)
    int count(long account, String find, String which);

    @Insert("""
            insert into study_gauges (study_id, revision, body) values (#{study}, #{revision}, #{body}::jsonb)
            on conflict (study_id) do update set revision = excluded.revision, body = excluded.body
            where study_gauges.revision <= excluded.revision
            """)
    void putGauges(long study, long revision, String body);

    @Update("update study set archived_at = case when #{archived} then now() end where id = #{study}")
    void archive(long study, boolean archived);

    /** A new revision, so that nobody goes on with the old name. Nothing happens to a study with editions. */
    @Update("""
            update study s set slug = #{slug}, revision = revision + 1
            where s.id = #{study} and not exists (select 1 from edition e where e.study_id = s.id)
            """)
    int move(long study, String slug);

    @Select("select exists (select 1 from study where slug = #{slug} and id <> #{study})")
    boolean isTaken(String slug, long study);

    /** Nothing happens to a study with editions. */
    @Update("""
            update study s set deleted_at = now()
            where s.id = #{study} and not exists (select 1 from edition e where e.study_id = s.id)
            """)
    int delete(long study);

    @Select("""
            select s.id from study s join study_member m on m.study_id = s.id
            where s.slug = #{slug} and m.account_id = #{account} and m.role = 'OWNER' and s.deleted_at is not null
            """)
    Optional<Long> deleted(String slug, long account);

    @Update("update study set deleted_at = null where id = #{study}")
    void restore(long study);

    @Delete("""
            delete from study s where s.deleted_at < now() - make_interval(days => #{days})
            and not exists (select 1 from edition e where e.study_id = s.id)
            """)
    int purge(int days);
}
