package org.polyclave.server.access.persistence;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
public interface AccessMapper {
    /** A study as one account sees it. */
    record StudyHead(long id, String slug, String title, long revision, String role) {}

    record MemberRow(String name, String displayName, String role) {}

    @Select("""
            select s.id, s.slug, s.title, s.revision, m.role from study s join study_member m on m.study_id = s.id
            where m.account_id = #{account} and s.slug = #{slug} and s.deleted_at is null
            """)
    Optional<StudyHead> find(String slug, long account);

    @Select("""
            select s.id, s.slug, s.title, s.revision, m.role from study s join study_member m on m.study_id = s.id
            where m.account_id = #{account} and s.id = #{study} and s.deleted_at is null
            """)
    Optional<StudyHead> findById(long study, long account);

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
    List<MemberRow> members(long study);
}
