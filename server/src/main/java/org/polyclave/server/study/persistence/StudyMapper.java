package org.polyclave.server.study.persistence;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Studies with their rows, characters, scores and changes. */
@Mapper
public interface StudyMapper {
    /** A study as one account sees it. */
    record StudyHead(long id, String slug, String title, long revision, String role) {}

    record StudyTexts(String slug, String title, String scope, String nearButOutside, long revision) {}

    record CellRow(String rowId, String characterId, String body, long revision) {}

    record Member(String name, String displayName, String role) {}

    record ChangeSetRow(
            long id, long revision, String kind, @Nullable Long reverses, String who, String at) {}

    record ChangeRow(
            String rowId,
            String characterId,
            @Nullable String before,
            @Nullable String after) {}

    record CellRevision(long revision, String who) {}

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

    @Select("select exists (select 1 from study where slug = #{slug})")
    boolean slugTaken(String slug);

    @Select(
            "select slug, title, scope::text as scope, near_but_outside::text as near_but_outside, revision from study where id = #{id}")
    StudyTexts texts(long id);

    @Select("select body::text from study_row where study_id = #{id} order by position")
    List<String> rows(long id);

    @Select("select body::text from study_character where study_id = #{id} order by position")
    List<String> characters(long id);

    @Select(
            "select row_id, character_id, body::text as body, revision from score where study_id = #{id} order by row_id, character_id")
    List<CellRow> scores(long id);

    @Select("select row_id, character_id, '' as body, revision from cell_revision where study_id = #{id}")
    List<CellRow> cellRevisions(long id);

    @Insert("""
            insert into study (slug, title, scope, near_but_outside)
            values (#{slug}, #{title}, #{scope}::jsonb, #{outside}::jsonb)
            """)
    void insertStudy(String slug, String title, String scope, String outside);

    @Select("select id from study where slug = #{slug}")
    long idOf(String slug);

    @Insert(
            "insert into study_row (study_id, id, position, body) values (#{study}, #{id}, #{position}, #{body}::jsonb)")
    void insertRow(long study, String id, int position, String body);

    @Insert(
            "insert into study_character (study_id, id, position, body) values (#{study}, #{id}, #{position}, #{body}::jsonb)")
    void insertCharacter(long study, String id, int position, String body);

    @Insert("""
            insert into score (study_id, row_id, character_id, body, revision, scorer_id)
            values (#{study}, #{row}, #{character}, #{body}::jsonb, #{revision}, #{scorer})
            on conflict (study_id, row_id, character_id) do update
            set body = excluded.body, revision = excluded.revision, scorer_id = excluded.scorer_id, scored_at = now()
            """)
    void putScore(long study, String row, String character, String body, long revision, long scorer);

    /** Writes the scores of a new study: {@code scores} is an array of their bodies. */
    @Insert("""
            insert into score (study_id, row_id, character_id, body, revision, scorer_id)
            select #{study}, e ->> 'row', e ->> 'character', e, 1, #{scorer} from jsonb_array_elements(#{scores}::jsonb) e
            """)
    void insertScores(long study, String scores, long scorer);

    @Delete("delete from score where study_id = #{study} and row_id = #{row} and character_id = #{character}")
    void deleteScore(long study, String row, String character);

    @Select(
            "select body::text from score where study_id = #{study} and row_id = #{row} and character_id = #{character}")
    Optional<String> score(long study, String row, String character);

    @Select("""
            select c.revision, a.display_name as who from cell_revision c join account a on a.id = c.account_id
            where c.study_id = #{study} and c.row_id = #{row} and c.character_id = #{character}
            """)
    Optional<CellRevision> cellRevision(long study, String row, String character);

    @Insert("""
            insert into cell_revision (study_id, row_id, character_id, revision, account_id)
            values (#{study}, #{row}, #{character}, #{revision}, #{account})
            on conflict (study_id, row_id, character_id) do update
            set revision = excluded.revision, account_id = excluded.account_id
            """)
    void putCellRevision(long study, String row, String character, long revision, long account);

    /** Locks the study for this transaction and raises its revision. */
    @Select("update study set revision = revision + 1 where id = #{id} returning revision")
    long nextRevision(long id);

    @Update("update study set title = #{title}, scope = #{scope}::jsonb where id = #{id}")
    void updateScope(long id, String title, String scope);

    @Select(
            "select not exists (select 1 from change_set where study_id = #{id} and kind = 'SCOPE' and revision > #{seen})")
    boolean scopeUnchangedSince(long id, long seen);

    @Insert("""
            insert into study_member (study_id, account_id, role) values (#{study}, #{account}, #{role})
            on conflict (study_id, account_id) do update set role = excluded.role
            """)
    void putMember(long study, long account, String role);

    @Select("""
            select a.name, a.display_name, m.role from study_member m join account a on a.id = m.account_id
            where m.study_id = #{study} order by a.name
            """)
    List<Member> members(long study);

    @Select("""
            insert into change_set (study_id, revision, account_id, kind, reverses)
            values (#{study}, #{revision}, #{account}, #{kind}, #{reverses}) returning id
            """)
    long insertChangeSet(long study, long revision, long account, String kind, @Nullable Long reverses);

    @Insert("""
            insert into change (change_set_id, row_id, character_id, before, after)
            values (#{set}, #{row}, #{character}, #{before}::jsonb, #{after}::jsonb)
            """)
    void insertChange(long set, String row, String character, @Nullable String before, @Nullable String after);

    @Select("""
            select c.id, c.revision, c.kind, c.reverses, a.display_name as who, to_char(c.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at
            from change_set c join account a on a.id = c.account_id
            where c.study_id = #{study} and c.account_id = #{account} order by c.id desc limit 500
            """)
    List<ChangeSetRow> changeSetsOf(long study, long account);

    @Select("""
            select c.id, c.revision, c.kind, c.reverses, a.display_name as who, to_char(c.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at
            from change_set c join account a on a.id = c.account_id join change d on d.change_set_id = c.id
            where c.study_id = #{study} and d.row_id = #{row} and d.character_id = #{character} order by c.id desc limit 50
            """)
    List<ChangeSetRow> historyOf(long study, String row, String character);

    @Select(
            "select row_id, character_id, before::text as before, after::text as after from change where change_set_id = #{set}")
    List<ChangeRow> changes(long set);

    @Select("""
            select distinct d.row_id, d.character_id, null as before, null as after
            from change d join change_set c on c.id = d.change_set_id
            where c.study_id = #{study} and c.revision > #{revision}
            """)
    List<ChangeRow> changedSince(long study, long revision);
}
