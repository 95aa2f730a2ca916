package org.polyclave.server.account.persistence;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** What people measured of their own rules of thumb. */
@Mapper
public interface RuleOfThumbMapper {
    /** @param measured a JSON array of numbers */
    record Row(String rule, String measured) {}

    @Select("select rule, measured::text as measured from rule_of_thumb where account_id = #{account}")
    List<Row> of(long account);

    @Insert("""
            insert into rule_of_thumb (account_id, rule, measured) values (#{account}, #{rule}, #{measured}::jsonb)
            on conflict (account_id, rule) do update set measured = excluded.measured
            """)
    void put(long account, String rule, String measured);

    @Delete("delete from rule_of_thumb where account_id = #{account} and rule = #{rule}")
    void remove(long account, String rule);
}
