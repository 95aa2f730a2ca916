package org.polyclave.server.study.persistence;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Studies with their rows, characters and scores, and who shares them. They are changed through the change log only. */
@Mapper
public interface StudyMapper {
    /** A study as one account sees it. */
    record StudyHead(long id, String slug, String title, long revision, String role) {}

    record StudyTexts(String slug, String title, String scope, String nearButOutside, long revision) {}

    record Member(String name, String displayName, String role) {}

    @Select("""
            select s.id, s.slug, s.title, s.revision, m.role from study s join study_member m on m.study_id = s.id
            where m.account_id = #{account} order by lower(s.title), s.id
            """)
    List<StudyHead> studiesOf(long account);

    @Select("""
            select s.id, s.slug, s.title, s.revision, m.role from study s join study_member m on m.study_id = s.id
            where m.account_id = #{account} and s.slug = #{slug}
            """)
    Optional<StudyHead> find(String slug, long account);

    @Select("select display_name from account where id = #{account}")
    String displayName(long account);

    @Select("select exists (select 1 from study where slug = #{slug})")
    boolean slugTaken(String slug);

    @Select("""
            select slug, title, scope::text as scope, near_but_outside::text as near_but_outside, revision
            from study where id = #{id}
            """)
    StudyTexts texts(long id);

    @Select("select revision from study where id = #{id}")
    long revision(long id);

    @Select("select body::text from study_row where study_id = #{id} order by position, id")
    List<String> rows(long id);

    @Select("select body::text from study_character where study_id = #{id} order by position, id")
    List<String> characters(long id);

    @Select("select body::text from score where study_id = #{id} order by row_id, character_id")
    List<String> scores(long id);

    /** All scores of a study as they were at a revision, in one piece; made and read by the study store only. */
    record Pack(long revision, byte[] body) {}

    @Select("select revision, body from score_pack where study_id = #{id}")
    Optional<Pack> pack(long id);

    @Insert("""
            insert into score_pack (study_id, revision, body) values (#{study}, #{revision}, #{body})
            on conflict (study_id) do update set revision = excluded.revision, body = excluded.body
            where score_pack.revision < excluded.revision
            """)
    void putPack(long study, long revision, byte[] body);

    /** Ids of large studies, the one that was changed last first. */
    @Select("""
            select p.study_id from score_pack p left join change_set c on c.study_id = p.study_id
            group by p.study_id order by max(c.at) desc nulls last limit #{count}
            """)
    List<Long> largeStudies(int count);

    /** Gauges of a study as they were worked out at a revision. */
    @Select("select body::text from study_gauges where study_id = #{study} and revision = #{revision}")
    Optional<String> gauges(long study, long revision);

    @Insert("""
            insert into study_gauges (study_id, revision, body) values (#{study}, #{revision}, #{body}::jsonb)
            on conflict (study_id) do update set revision = excluded.revision, body = excluded.body
            where study_gauges.revision < excluded.revision
            """)
    void putGauges(long study, long revision, String body);

    /** Terms, references or claims of a study. */
    @Select("select body::text from study_entry where study_id = #{id} and kind = #{kind} order by position, id")
    List<String> entries(long id, String kind);

    @Insert("""
            insert into study (slug, title, scope, near_but_outside)
            values (#{slug}, #{title}, #{scope}::jsonb, #{outside}::jsonb)
            """)
    void insertStudy(String slug, String title, String scope, String outside);

    @Select("select id from study where slug = #{slug}")
    long idOf(String slug);

    @Insert(
            "insert into study_row (study_id, id, position, body) values (#{study}, #{id}, #{position}, #{body}::jsonb)")
    void insertRow(long study, String id, double position, String body);

    @Insert(
            "insert into study_character (study_id, id, position, body) values (#{study}, #{id}, #{position}, #{body}::jsonb)")
    void insertCharacter(long study, String id, double position, String body);

    /** Writes the scores of a new study: {@code scores} is an array of their bodies. */
    @Insert("""
            insert into score (study_id, row_id, character_id, body, revision, scorer_id)
            select #{study}, e ->> 'row', e ->> 'character', e, 1, #{scorer} from jsonb_array_elements(#{scores}::jsonb) e
            """)
    void insertScores(long study, String scores, long scorer);

    @Update("analyze score")
    void countScores();

    @Insert("""
            insert into study_member (study_id, account_id, role) values (#{study}, #{account}, #{role})
            on conflict (study_id, account_id) do update set role = excluded.role
            """)
    void putMember(long study, long account, String role);

    @Delete("""
            delete from study_member m using account a
            where a.id = m.account_id and m.study_id = #{study} and a.name = #{name}
            """)
    void removeMember(long study, String name);

    @Select("""
            select a.name, a.display_name, m.role from study_member m join account a on a.id = m.account_id
            where m.study_id = #{study} order by a.name
            """)
    List<Member> members(long study);
}
