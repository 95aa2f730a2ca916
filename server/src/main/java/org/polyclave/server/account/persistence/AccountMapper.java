package org.polyclave.server.account.persistence;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
public interface AccountMapper {
    @Select("select id, name, display_name, password_hash, administrator from account where name = lower(#{name})")
    Optional<AccountRow> find(String name);

    @Select("select id, name, display_name, password_hash, administrator from account order by name")
    List<AccountRow> all();

    @Select("select display_name from account where id = #{account}")
    String displayName(long account);

    @Insert("""
            insert into account (name, display_name, password_hash, administrator)
            values (lower(#{name}), #{displayName}, #{passwordHash}, #{administrator})
            """)
    void insert(String name, String displayName, String passwordHash, boolean administrator);
}
