package org.polyclave.server.history.persistence;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** Snapshots: a name for a whole study as it was. */
@Mapper
public interface SnapshotMapper {
    record SnapshotLine(long id, String name, long revision, String who, String at) {}

    @Select("""
            select s.id, s.name, s.revision, a.display_name as who, to_char(s.taken_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at
            from snapshot s join account a on a.id = s.account_id where s.study_id = #{study} order by s.id desc
            """)
    List<SnapshotLine> all(long study);

    @Select("select document from snapshot where study_id = #{study} and id = #{id}")
    Optional<String> document(long study, long id);

    @Select("select exists (select 1 from snapshot where study_id = #{study} and lower(name) = lower(#{name}))")
    boolean isTaken(long study, String name);

    @Insert("""
            insert into snapshot (study_id, name, revision, account_id, document)
            values (#{study}, #{name}, #{revision}, #{account}, #{document})
            """)
    void insert(long study, String name, long revision, long account, String document);

    @Delete("delete from snapshot where study_id = #{study} and id = #{id}")
    int delete(long study, long id);
}
