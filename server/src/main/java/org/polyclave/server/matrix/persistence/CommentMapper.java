package org.polyclave.server.matrix.persistence;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
public interface CommentMapper {
    /** @param settledBy who settled it; null while it is open */
    record CommentLine(
            long id,
            String row,
            String character,
            String who,
            String at,
            String text,
            @Schema(nullable = true) @Nullable String settledBy) {}

    /** The oldest first; those of rows and characters that are gone stay, for undo may bring them back. */
    @Select("""
            select c.id, c.row_id as row, c.character_id as character, a.display_name as who, c.text,
                   to_char(c.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at, s.display_name as settled_by
            from cell_comment c join account a on a.id = c.account_id left join account s on s.id = c.settled_by
            where c.study_id = #{study} order by c.id
            """)
    List<CommentLine> all(long study);

    @Insert("""
            insert into cell_comment (study_id, row_id, character_id, account_id, text)
            values (#{study}, #{row}, #{character}, #{account}, #{text})
            """)
    void insert(long study, String row, String character, long account, String text);

    /** @param by null opens it again */
    @Update("update cell_comment set settled_by = #{by} where study_id = #{study} and id = #{id}")
    int settle(long study, long id, @Nullable Long by);
}
