package org.polyclave.server.importing.persistence;

import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Files that are being imported. */
@Mapper
public interface UploadMapper {
    record UploadRow(String fileName, byte[] bytes, String lookedAt, String signature) {}

    @Insert("""
            insert into upload (id, account_id, file_name, bytes) values (#{id}::uuid, #{account}, #{fileName}, #{bytes})
            """)
    void insert(String id, long account, String fileName, byte[] bytes);

    /** Notes that the file is still needed; 0 if it is not kept. */
    @Update("update upload set used_at = now() where id = #{id}::uuid and account_id = #{account}")
    int touch(String id, long account);

    @Select(
            "select file_name, bytes, looked_at, signature from upload where id = #{id}::uuid and account_id = #{account}")
    Optional<UploadRow> find(String id, long account);

    @Update("""
            update upload set looked_at = #{sheet}, signature = #{signature} where id = #{id}::uuid and account_id = #{account}
            """)
    void noteSignature(String id, long account, String sheet, String signature);

    @Delete("""
            delete from upload where account_id = #{account} and id not in
                (select id from upload where account_id = #{account} order by used_at desc limit #{most})
            """)
    void removeAllBut(long account, int most);

    @Delete("delete from upload where used_at < now() - interval '1 day'")
    void purge();
}
