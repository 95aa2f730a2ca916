package org.polyclave.server.checks.persistence;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** Findings that are meant, by their keys. */
@Mapper
public interface AcceptedFindingMapper {
    record AcceptedRow(String finding, String reason, String who) {}

    @Select("""
            select f.finding, f.reason, a.display_name as who from accepted_finding f join account a on a.id = f.account_id
            where f.study_id = #{study}
            """)
    List<AcceptedRow> all(long study);

    @Insert("""
            insert into accepted_finding (study_id, finding, reason, account_id)
            values (#{study}, #{finding}, #{reason}, #{account})
            on conflict (study_id, finding) do update
            set reason = excluded.reason, account_id = excluded.account_id, accepted_at = now()
            """)
    void accept(long study, String finding, String reason, long account);

    @Delete("delete from accepted_finding where study_id = #{study} and finding = #{finding}")
    void reopen(long study, String finding);
}
