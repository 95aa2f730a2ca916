package org.polyclave.server.account.persistence;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
public interface AccountMapper {
    @Select("""
            select id, name, display_name, password_hash, administrator, active from account where name = lower(#{name})
            """)
    Optional<AccountRow> find(String name);

    @Select("select id, name, display_name, password_hash, administrator, active from account order by name")
    List<AccountRow> all();

    @Select("select display_name from account where id = #{account}")
    String displayName(long account);

    @Insert("""
            insert into account (name, display_name, password_hash, administrator)
            values (lower(#{name}), #{displayName}, #{passwordHash}, #{administrator})
            """)
    void insert(String name, String displayName, @Nullable String passwordHash, boolean administrator);

    @Update("update account set display_name = #{displayName} where id = #{account}")
    void rename(long account, String displayName);

    @Update("update account set password_hash = #{hash} where id = #{account}")
    void setPassword(long account, String hash);

    @Update("update account set active = #{active} where id = #{account}")
    void setActive(long account, boolean active);

    /** Holds every administrator until the transaction ends, so that two cannot switch off one another. */
    @Select("select id from account where administrator and active order by id for update")
    List<Long> lockAdministrators();

    @Insert("""
            insert into account_link (account_id, hash, expires_at)
            values (#{account}, #{hash}, now() + make_interval(hours => #{hours}))
            on conflict (account_id) do update set hash = excluded.hash, expires_at = excluded.expires_at
            """)
    void link(long account, byte[] hash, int hours);

    @Select("""
            select a.id, a.name, a.display_name, a.password_hash, a.administrator, a.active
            from account_link l join account a on a.id = l.account_id
            where l.hash = #{hash} and l.expires_at > now() and a.active
            """)
    Optional<AccountRow> ofLink(byte[] hash);

    /** 1 for whoever comes first. */
    @Delete("delete from account_link where hash = #{hash}")
    int useLink(byte[] hash);
}
