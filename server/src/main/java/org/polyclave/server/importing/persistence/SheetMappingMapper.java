package org.polyclave.server.importing.persistence;

import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** How accounts read tables, by the headings of these. */
@Mapper
public interface SheetMappingMapper {
    @Select("select mapping::text from sheet_mapping where account_id = #{account} and signature = #{signature}")
    Optional<String> find(long account, String signature);

    @Insert("""
            insert into sheet_mapping (account_id, signature, mapping) values (#{account}, #{signature}, #{mapping}::jsonb)
            on conflict (account_id, signature) do update set mapping = excluded.mapping, used_at = now()
            """)
    void remember(long account, String signature, String mapping);
}
