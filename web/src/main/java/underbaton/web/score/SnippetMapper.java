package underbaton.web.score;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** The table of the snippets, which all shows share. */
@Mapper
interface SnippetMapper {

    /** @param content as {@link underbaton.core.store.StoredForm} writes it */
    record SnippetRow(int id, String name, String content) {}

    @Select("SELECT id, name, content FROM snippets ORDER BY name")
    List<SnippetRow> all();

    @Select("SELECT id, name, content FROM snippets WHERE id = #{id}")
    Optional<SnippetRow> find(int id);

    @Insert("INSERT INTO snippets (name, content) VALUES (#{name}, #{content})")
    void add(SnippetRow row);

    @Delete("DELETE FROM snippets WHERE id = #{id}")
    void delete(int id);
}
