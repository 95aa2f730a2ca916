package org.polyclave.server.store.persistence;

import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** The JSON of whole kinds of objects, whatever it says, to be brought up to date. */
@Mapper
public interface BodyMapper {
    /** @param object its key, as in the change log */
    record Body(String object, String body) {}

    /** What an object was before and after a change. */
    record ChangedBody(
            long set,
            String object,
            @Nullable String before,
            @Nullable String after) {}

    @Select("select id from study where body_version < #{current} order by id")
    List<Long> outdated(int current);

    /** The version of a study's bodies; nobody else changes them until the transaction ends. */
    @Select("select body_version from study where id = #{study} for update")
    int lock(long study);

    @Update("update study set body_version = #{current} where id = #{study}")
    void setVersion(long study, int current);

    @Select("""
            select 'row/' || id as object, body::text as body from study_row
            where #{kind} = 'row' and study_id = #{study}
            union all
            select 'character/' || id, body::text from study_character
            where #{kind} = 'character' and study_id = #{study}
            union all
            select 'cell/' || row_id || '/' || character_id, body::text from score
            where #{kind} = 'cell' and study_id = #{study}
            union all
            select kind || '/' || id, body::text from study_entry where kind = #{kind} and study_id = #{study}
            union all
            select 'scope', scope::text from study where #{kind} = 'scope' and id = #{study}
            union all
            select 'outside', near_but_outside::text from study where #{kind} = 'outside' and id = #{study}
            """)
    List<Body> bodies(long study, String kind);

    @Select("""
            select change_set_id as "set", object, before::text as before, after::text as after from change
            where study_id = #{study} and split_part(object, '/', 1) = #{kind}
            """)
    List<ChangedBody> changes(long study, String kind);

    /** {@code bodies}: an array of {@code {"id", "character", "body"}}, as in the updates below. */
    @Update("""
            update study_row o set body = e -> 'body' from jsonb_array_elements(#{bodies}::jsonb) e
            where o.study_id = #{study} and o.id = e ->> 'id'
            """)
    void putRows(long study, String bodies);

    @Update("""
            update study_character o set body = e -> 'body' from jsonb_array_elements(#{bodies}::jsonb) e
            where o.study_id = #{study} and o.id = e ->> 'id'
            """)
    void putCharacters(long study, String bodies);

    @Update("""
            update score o set body = e -> 'body' from jsonb_array_elements(#{bodies}::jsonb) e
            where o.study_id = #{study} and o.row_id = e ->> 'id' and o.character_id = e ->> 'character'
            """)
    void putCells(long study, String bodies);

    @Update("""
            update study_entry o set body = e -> 'body' from jsonb_array_elements(#{bodies}::jsonb) e
            where o.study_id = #{study} and o.kind = #{kind} and o.id = e ->> 'id'
            """)
    void putEntries(long study, String kind, String bodies);

    @Update("update study set scope = #{bodies}::jsonb -> 0 -> 'body' where id = #{study}")
    void putScope(long study, String bodies);

    @Update("update study set near_but_outside = #{bodies}::jsonb -> 0 -> 'body' where id = #{study}")
    void putOutside(long study, String bodies);

    /** {@code changes}: an array of {@code {"set", "object", "before", "after"}}. */
    @Update("""
            update change o set before = nullif(e -> 'before', 'null'), after = nullif(e -> 'after', 'null')
            from jsonb_array_elements(#{changes}::jsonb) e
            where o.study_id = #{study} and o.change_set_id = (e ->> 'set')::bigint and o.object = e ->> 'object'
            """)
    void putChanges(long study, String changes);
}
