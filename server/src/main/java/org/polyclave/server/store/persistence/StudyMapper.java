package org.polyclave.server.store.persistence;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Reads studies with all that belongs to them, and writes new ones. What exists is changed through the change log only. */
@Mapper
public interface StudyMapper {
    /** Content of an object, as JSON. */
    record Content(String object, String body) {}

    record ObjectRevision(String object, long revision) {}

    record StudyTexts(String slug, String title, String scope, String nearButOutside, long revision) {}

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

    /** Terms, references or claims of a study. */
    @Select("select body::text from study_entry where study_id = #{id} and kind = #{kind} order by position, id")
    List<String> entries(long id, String kind);

    @Insert("""
            insert into study (slug, title, scope, near_but_outside, body_version)
            values (#{slug}, #{title}, #{scope}::jsonb, #{outside}::jsonb, #{version})
            """)
    void insertStudy(String slug, String title, String scope, String outside, int version);

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

    @Select("""
            select r.object, r.revision from object_revision r
            where r.study_id = #{study} and r.object in (select jsonb_array_elements_text(#{keys}::jsonb))
            """)
    List<ObjectRevision> revisions(long study, String keys);

    @Select("select object, revision from object_revision where study_id = #{study}")
    List<ObjectRevision> allRevisions(long study);

    @Select("""
            select 'cell/' || s.row_id || '/' || s.character_id as object, s.body::text as body
            from score s join jsonb_array_elements(#{cells}::jsonb) k
              on s.row_id = k ->> 'row' and s.character_id = k ->> 'character'
            where s.study_id = #{study}
            """)
    List<Content> cells(long study, String cells);

    /** Objects of one kind as they are now, by their identifiers. */
    @Select("""
            select id as object, body::text as body from study_entry
            where study_id = #{study} and kind = #{kind} and id in (select jsonb_array_elements_text(#{ids}::jsonb))
            order by position, id
            """)
    List<Content> someEntries(long study, String kind, String ids);

    @Select("""
            select distinct d.object from change d join change_set c on c.id = d.change_set_id
            where c.study_id = #{study} and c.revision > #{revision} order by d.object
            """)
    List<String> changedSince(long study, long revision);

    @Insert("""
            insert into study_entry (study_id, kind, id, position, body)
            select #{study}, e ->> 'kind', e ->> 'id', (e -> 'after' ->> 'position')::double precision, e -> 'after' -> 'body'
            from jsonb_array_elements(#{entries}::jsonb) e
            on conflict (study_id, kind, id) do update set position = excluded.position, body = excluded.body
            """)
    void insertEntries(long study, String entries);

    @Insert("insert into study_member (study_id, account_id, role) values (#{study}, #{account}, 'OWNER')")
    void insertOwner(long study, long account);
}
