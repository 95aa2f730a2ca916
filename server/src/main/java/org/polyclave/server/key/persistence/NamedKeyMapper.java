package org.polyclave.server.key.persistence;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Keys of studies that have a name. */
@Mapper
public interface NamedKeyMapper {
    /**
     * @param request what it was made for, as JSON
     * @param figures as JSON
     */
    record NamedKeyRow(
            long id,
            String name,
            String request,
            boolean published,
            long revision,
            String who,
            String at,
            String figures) {}

    String COLUMNS = """
            k.id, k.name, k.request, k.published, k.revision, a.display_name as who,
            to_char(k.kept_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at, k.figures
            """;

    @Select(
            "select " + COLUMNS
                    + " from study_key k join account a on a.id = k.account_id where k.study_id = #{study} order by lower(k.name)")
    List<NamedKeyRow> all(long study);

    @Select("select " + COLUMNS
            + " from study_key k join account a on a.id = k.account_id where k.study_id = #{study} and k.id = #{id}")
    Optional<NamedKeyRow> find(long study, long id);

    @Select("select answer from study_key where study_id = #{study} and id = #{id}")
    Optional<String> answer(long study, long id);

    @Select("select document from study_key where study_id = #{study} and id = #{id}")
    Optional<String> document(long study, long id);

    @Select("select count(*) from study_key where study_id = #{study}")
    int count(long study);

    /**
     * A key as it was made, and from what.
     *
     * @param request what it was made for, as JSON
     * @param figures as JSON
     * @param answer the key with its words, as JSON
     * @param document the study file
     */
    record MadeKey(String request, long revision, String figures, String answer, String document) {}

    /** The id of a new key; empty if the name is taken. */
    @Select(value = """
            insert into study_key (study_id, name, request, revision, account_id, figures, answer, document)
            values (#{study}, #{name}, #{made.request}, #{made.revision}, #{account}, #{made.figures}, #{made.answer}, #{made.document})
            on conflict do nothing returning id
            """, affectData = true)
    Optional<Long> insert(long study, String name, long account, MadeKey made);

    @Update("""
            update study_key set request = #{made.request}, revision = #{made.revision}, account_id = #{account}, kept_at = now(),
            figures = #{made.figures}, answer = #{made.answer}, document = #{made.document} where study_id = #{study} and id = #{id}
            """)
    int replace(long study, long id, long account, MadeKey made);

    @Update("update study_key set name = #{name}, published = #{published} where study_id = #{study} and id = #{id}")
    int update(long study, long id, String name, boolean published);

    @Select(
            "select exists (select 1 from study_key where study_id = #{study} and lower(name) = lower(#{name}) and id <> #{id})")
    boolean isTaken(long study, String name, long id);

    @Delete("delete from study_key where study_id = #{study} and id = #{id}")
    int delete(long study, long id);
}
