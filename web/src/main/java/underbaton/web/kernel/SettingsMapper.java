package underbaton.web.kernel;

import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** What is set once for the whole house. */
@Mapper
public interface SettingsMapper {

    @Select("SELECT value FROM settings WHERE name = #{name}")
    Optional<String> get(String name);

    @Insert("INSERT INTO settings (name, value) VALUES (#{name}, #{value}) ON DUPLICATE KEY UPDATE value = #{value}")
    void put(String name, String value);
}
