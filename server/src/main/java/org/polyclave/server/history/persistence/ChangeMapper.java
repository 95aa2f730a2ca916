package org.polyclave.server.history.persistence;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/**
 * The change log of studies and the objects it changes. Many objects are passed as one JSON array, so that a block of
 * thousands of cells takes a few statements.
 */
@Mapper
public interface ChangeMapper {
    /** Content of an object, as JSON. */
    record Content(String object, String body) {}

    record Revision(String object, long revision, String who) {}

    record ChangeSetRow(
            long id, long revision, String kind, @Nullable Long reverses, String who, String at) {}

    record ChangeRow(
            String object,
            long revisionBefore,
            @Nullable String before,
            @Nullable String after) {}

    /** Where an object stands among those of its kind. */
    record PlaceRow(String id, double position) {}

    /** Keeps everybody else from changing the study until the transaction ends. */
    @Select("select revision from study where id = #{study} for update")
    long lock(long study);

    @Select("select id, position from study_row where study_id = #{study} order by position, id")
    List<PlaceRow> rowPlaces(long study);

    @Select("select id, position from study_character where study_id = #{study} order by position, id")
    List<PlaceRow> characterPlaces(long study);

    @Select("select kind || '/' || id as id, position from study_entry where study_id = #{study} order by position, id")
    List<PlaceRow> entryPlaces(long study);

    /** Locks the study for this transaction and raises its revision. */
    @Select("update study set revision = revision + 1 where id = #{study} returning revision")
    long nextRevision(long study);

    @Select("""
            select r.object, r.revision, a.display_name as who from object_revision r join account a on a.id = r.account_id
            where r.study_id = #{study} and r.object in (select jsonb_array_elements_text(#{keys}::jsonb))
            """)
    List<Revision> revisions(long study, String keys);

    /** Whether an identifier was ever given to an object of a kind; those of deleted objects are not given again. */
    @Select("""
            select exists (select 1 from object_revision where study_id = #{study} and object = #{key})
                or (#{kind} = 'row' and exists (select 1 from study_row where study_id = #{study} and id = #{id}))
                or (#{kind} = 'character'
                    and exists (select 1 from study_character where study_id = #{study} and id = #{id}))
                or exists (select 1 from study_entry where study_id = #{study} and kind = #{kind} and id = #{id})
            """)
    boolean isTaken(long study, String kind, String id, String key);

    @Select("""
            select 'cell/' || s.row_id || '/' || s.character_id as object, s.body::text as body
            from score s join jsonb_array_elements(#{cells}::jsonb) k
              on s.row_id = k ->> 'row' and s.character_id = k ->> 'character'
            where s.study_id = #{study}
            """)
    List<Content> cells(long study, String cells);

    @Select("""
            select 'row/' || r.id as object, json_build_object('position', r.position, 'body', r.body)::text as body
            from study_row r join jsonb_array_elements(#{objects}::jsonb) k on k ->> 'kind' = 'row' and k ->> 'id' = r.id
            where r.study_id = #{study}
            union all
            select 'character/' || c.id, json_build_object('position', c.position, 'body', c.body)::text
            from study_character c join jsonb_array_elements(#{objects}::jsonb) k
              on k ->> 'kind' = 'character' and k ->> 'id' = c.id
            where c.study_id = #{study}
            union all
            select e.kind || '/' || e.id, json_build_object('position', e.position, 'body', e.body)::text
            from study_entry e join jsonb_array_elements(#{objects}::jsonb) k on k ->> 'kind' = e.kind and k ->> 'id' = e.id
            where e.study_id = #{study}
            union all
            select 'scope', json_build_object('title', title, 'scope', scope)::text from study where id = #{study}
            union all
            select 'outside', near_but_outside::text from study where id = #{study}
            """)
    List<Content> others(long study, String objects);

    @Insert("""
            insert into score (study_id, row_id, character_id, body, revision, scorer_id)
            select #{study}, k ->> 'row', k ->> 'character', k -> 'after', #{revision}, #{account}
            from jsonb_array_elements(#{cells}::jsonb) k
            on conflict (study_id, row_id, character_id) do update
            set body = excluded.body, revision = excluded.revision, scorer_id = excluded.scorer_id, scored_at = now()
            """)
    void putCells(long study, String cells, long revision, long account);

    @Delete("""
            delete from score s using jsonb_array_elements(#{cells}::jsonb) k
            where s.study_id = #{study} and s.row_id = k ->> 'row' and s.character_id = k ->> 'character'
            """)
    void removeCells(long study, String cells);

    @Insert("""
            insert into study_row (study_id, id, position, body)
            values (#{study}, #{id}, (#{content}::jsonb ->> 'position')::double precision, #{content}::jsonb -> 'body')
            on conflict (study_id, id) do update set position = excluded.position, body = excluded.body
            """)
    void putRow(long study, String id, String content);

    @Delete("delete from study_row where study_id = #{study} and id = #{id}")
    void removeRow(long study, String id);

    @Insert("""
            insert into study_character (study_id, id, position, body)
            values (#{study}, #{id}, (#{content}::jsonb ->> 'position')::double precision, #{content}::jsonb -> 'body')
            on conflict (study_id, id) do update set position = excluded.position, body = excluded.body
            """)
    void putCharacter(long study, String id, String content);

    @Delete("delete from study_character where study_id = #{study} and id = #{id}")
    void removeCharacter(long study, String id);

    @Insert("""
            insert into study_entry (study_id, kind, id, position, body)
            select #{study}, e ->> 'kind', e ->> 'id', (e -> 'after' ->> 'position')::double precision, e -> 'after' -> 'body'
            from jsonb_array_elements(#{entries}::jsonb) e
            on conflict (study_id, kind, id) do update set position = excluded.position, body = excluded.body
            """)
    void putEntries(long study, String entries);

    @Delete("""
            delete from study_entry s using jsonb_array_elements(#{entries}::jsonb) e
            where s.study_id = #{study} and s.kind = e ->> 'kind' and s.id = e ->> 'id'
            """)
    void removeEntries(long study, String entries);

    @Update("""
            update study set title = #{content}::jsonb ->> 'title', scope = #{content}::jsonb -> 'scope' where id = #{study}
            """)
    void putScope(long study, String content);

    @Update("update study set near_but_outside = #{content}::jsonb where id = #{study}")
    void putOutside(long study, String content);

    @Select("""
            insert into change_set (study_id, revision, account_id, kind, reverses)
            values (#{study}, #{revision}, #{account}, #{kind}, #{reverses}) returning id
            """)
    long insertChangeSet(long study, long revision, long account, String kind, @Nullable Long reverses);

    /** Logs the changes of a set, and the revision of the content that each object has now. */
    @Insert("""
            with changed as (
                insert into change (study_id, change_set_id, object, revision_before, before, after)
                select #{study}, #{set}, k ->> 'object', (k ->> 'revisionBefore')::bigint, nullif(k -> 'before', 'null'), nullif(k -> 'after', 'null')
                from jsonb_array_elements(#{changes}::jsonb) k
            )
            insert into object_revision (study_id, object, revision, account_id)
            select #{study}, k ->> 'object', (k ->> 'revision')::bigint, #{account} from jsonb_array_elements(#{changes}::jsonb) k
            on conflict (study_id, object) do update set revision = excluded.revision, account_id = excluded.account_id
            """)
    void log(long study, long set, long account, String changes);

    @Select("""
            select c.id, c.revision, c.kind, c.reverses, a.display_name as who, to_char(c.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at
            from change_set c join account a on a.id = c.account_id
            where c.study_id = #{study} and c.account_id = #{account} order by c.id desc limit 500
            """)
    List<ChangeSetRow> changeSetsOf(long study, long account);

    @Select("""
            select c.id, c.revision, c.kind, c.reverses, a.display_name as who, to_char(c.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at
            from change d join change_set c on c.id = d.change_set_id join account a on a.id = c.account_id
            where d.study_id = #{study} and d.object = #{key} order by d.change_set_id desc limit 50
            """)
    List<ChangeSetRow> historyOf(long study, String key);

    @Select("""
            select object, revision_before, before::text as before, after::text as after from change
            where change_set_id = #{set} order by object
            """)
    List<ChangeRow> changes(long set);

    /**
     * What change sets did to objects of one kind, without the contents of all that they changed.
     *
     * @param first key of the first of them
     * @param content of it, after the change or before
     */
    record DoneRow(
            long set,
            String kind,
            String how,
            int count,
            String first,
            @Nullable String content) {}

    @Select("""
            with done as (
                select change_set_id, split_part(object, '/', 1) as kind,
                    case when before is null then 'ADDED' when after is null then 'REMOVED' else 'CHANGED' end as how,
                    count(*)::int as count, min(object) as first
                from change where change_set_id in (select jsonb_array_elements_text(#{sets}::jsonb)::bigint)
                group by 1, 2, 3
            )
            select d.change_set_id as set, d.kind, d.how, d.count, d.first, coalesce(c.after, c.before)::text as content
            from done d join change c on c.change_set_id = d.change_set_id and c.object = d.first
            order by d.change_set_id, d.kind, d.how
            """)
    List<DoneRow> done(String sets);

    @Select("""
            select distinct d.object from change d join change_set c on c.id = d.change_set_id
            where c.study_id = #{study} and c.revision > #{revision} order by d.object
            """)
    List<String> changedSince(long study, long revision);
}
