package yalos.web.store;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Rows of those who are signed in, and of tokens for scripts; only hashes of what they show. */
@Mapper
public interface PassMapper {
    /** A token in the list. */
    record TokenRow(long id, String name, String madeBy, LocalDateTime madeAt) {}

    @Insert("insert into session (hash, name, expires_at) values (#{hash}, #{name}, #{expiresAt})")
    void signIn(@Param("hash") String hash, @Param("name") String name, @Param("expiresAt") LocalDateTime expiresAt);

    @Select("select name from session where hash = #{hash} and expires_at > #{now}")
    Optional<String> signedIn(@Param("hash") String hash, @Param("now") LocalDateTime now);

    @Delete("delete from session where hash = #{hash}")
    void signOut(String hash);

    @Delete("delete from session where expires_at <= #{now}")
    void forgetExpired(LocalDateTime now);

    @Insert("insert into api_token (name, hash, made_by, made_at) values (#{name}, #{hash}, #{madeBy}, now())")
    void makeToken(@Param("name") String name, @Param("hash") String hash, @Param("madeBy") String madeBy);

    @Select("select id, name, made_by, made_at from api_token order by id desc")
    List<TokenRow> tokens();

    @Select("select name from api_token where hash = #{hash}")
    Optional<String> tokenOf(String hash);

    @Delete("delete from api_token where id = #{id}")
    void revoke(long id);
}
