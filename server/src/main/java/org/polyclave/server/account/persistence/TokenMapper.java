package org.polyclave.server.account.persistence;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
public interface TokenMapper {
    record TokenRow(
            long id,
            String name,
            String scope,
            String createdAt,
            @Nullable String lastUsedAt) {}

    record Bearer(String account, String scope) {}

    @Select("""
            select id, name, scope, to_char(created_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as created_at,
                to_char(last_used_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as last_used_at
            from access_token where account_id = #{account} order by name
            """)
    List<TokenRow> all(long account);

    @Select("""
            insert into access_token (account_id, name, hash, scope) values (#{account}, #{name}, #{hash}, #{scope})
            returning id
            """)
    long insert(long account, String name, byte[] hash, String scope);

    /** Who a token speaks for; that it was used is noted once a minute. */
    @Select("""
            with used as (
                update access_token set last_used_at = now()
                where hash = #{hash} and (last_used_at is null or last_used_at < now() - interval '1 minute')
            )
            select a.name as account, t.scope from access_token t join account a on a.id = t.account_id
            where t.hash = #{hash} and a.active
            """)
    Optional<Bearer> bearer(byte[] hash);

    @Delete("delete from access_token where account_id = #{account} and id = #{id}")
    int remove(long account, long id);
}
