package org.polyclave.server.edition.persistence;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
public interface EditionMapper {
    record EditionRow(long studyId, String hash) {}

    record EditionLine(int number, String status, String reason, String publishedAt, String who) {}

    @Select("select study_id, hash from edition where slug = #{slug} and number = #{number}")
    Optional<EditionRow> find(String slug, int number);

    @Select("select document from edition where slug = #{slug} and number = #{number}")
    Optional<String> document(String slug, int number);

    @Select("select packed from edition_packed where slug = #{slug} and number = #{number} and format = #{format}")
    Optional<byte[]> packed(String slug, int number, int format);

    @Insert(
            "insert into edition_packed (slug, number, format, packed) values (#{slug}, #{number}, #{format}, #{packed}) on conflict do nothing")
    void insertPacked(String slug, int number, int format, byte[] packed);

    @Select("select max(number) from edition where slug = #{slug}")
    Optional<Integer> newest(String slug);

    @Select("select count(*) from edition where study_id = #{study}")
    int count(long study);

    @Select("""
            select e.number, s.status, s.reason, to_char(e.published_at at time zone 'UTC', 'YYYY-MM-DD') as published_at, a.display_name as who
            from edition e join edition_status s on s.slug = e.slug and s.number = e.number
            join account a on a.id = e.published_by
            where e.slug = #{slug} order by e.number desc
            """)
    List<EditionLine> list(String slug);

    @Insert("""
            insert into edition (slug, number, study_id, hash, document, published_by)
            values (#{slug}, #{number}, #{study}, #{hash}, #{document}, #{account})
            """)
    void insert(String slug, int number, long study, String hash, String document, long account);

    @Insert("insert into edition_status (slug, number, status) values (#{slug}, #{number}, 'CURRENT')")
    void insertStatus(String slug, int number);

    @Update(
            "update edition_status set status = 'SUPERSEDED' where slug = #{slug} and status = 'CURRENT' and number <> #{number}")
    void supersede(String slug, int number);

    @Update(
            "update edition_status set status = 'WITHDRAWN', reason = #{reason} where slug = #{slug} and number = #{number}")
    int withdraw(String slug, int number, String reason);
}
