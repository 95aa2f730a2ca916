package org.polyclave.server.store.persistence;

import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** Contents of pictures, and which study may show them. */
@Mapper
public interface PictureMapper {
    record ContentRow(String mediaType, byte[] bytes) {}

    @Insert("""
            insert into picture_content (content, media_type, bytes, thumbnail)
            values (#{content}, #{mediaType}, #{bytes}, #{thumbnail}) on conflict (content) do nothing
            """)
    void keep(String content, String mediaType, byte[] bytes, byte[] thumbnail);

    @Insert("insert into study_picture (study_id, content) values (#{study}, #{content}) on conflict do nothing")
    void allow(long study, String content);

    @Insert(
            "insert into study_picture (study_id, content) select #{to}, content from study_picture where study_id = #{from} on conflict do nothing")
    void allowAll(long from, long to);

    @Select("""
            select p.media_type, p.bytes from picture_content p join study_picture s on s.content = p.content
            where s.study_id = #{study} and p.content = #{content}
            """)
    Optional<ContentRow> find(long study, String content);

    @Select("select exists (select 1 from study_picture where study_id = #{study} and content = #{content})")
    boolean isKnown(long study, String content);

    /** The small one; drawings have none and are given whole. */
    @Select("""
            select p.media_type, case when length(p.thumbnail) = 0 then p.bytes else p.thumbnail end as bytes
            from picture_content p join study_picture s on s.content = p.content
            where s.study_id = #{study} and p.content = #{content}
            """)
    Optional<ContentRow> findSmall(long study, String content);

    /** Contents that no study may show any more. */
    @Delete("""
            delete from picture_content p where not exists (select 1 from study_picture s where s.content = p.content)
            """)
    int removeUnreferenced();
}
