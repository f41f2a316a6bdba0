package underbaton.web.library;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.zaxxer.hikari.HikariDataSource;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javax.sql.DataSource;
import org.apache.ibatis.session.Configuration;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.mybatis.spring.SqlSessionFactoryBean;
import org.mybatis.spring.SqlSessionTemplate;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.DriverManagerDataSource;
import org.springframework.jdbc.support.JdbcTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Motion;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.exchange.CueTable;
import underbaton.core.exchange.Snippet;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Amount;
import underbaton.core.score.Position;
import underbaton.core.score.Score;
import underbaton.core.score.Tempo;
import underbaton.core.store.StoredForm;
import underbaton.web.UnderBaton;
import underbaton.web.kernel.KnownDays;

/**
 * A database as it was written up to version 7, with words in its columns, is carried over. The dump was taken from that
 * version with its two demo shows, and with rows of the kinds that it wrote and could not read again.
 */
class OldDatabaseTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final Path OLD = Path.of("src", "test", "resources", "old");

    private static JdbcTemplate sql;
    private static Shows shows;

    @BeforeAll
    static void carriedOver() throws Exception {
        HikariDataSource now = (HikariDataSource) baton.bean(DataSource.class);
        new JdbcTemplate(now).execute("CREATE OR REPLACE DATABASE underbaton_old CHARACTER SET utf8mb4");
        String url = now.getJdbcUrl().replace("/underbaton", "/underbaton_old");
        DataSource old =
                new DriverManagerDataSource(url + "?allowMultiQueries=true", now.getUsername(), now.getPassword());
        sql = new JdbcTemplate(old);
        sql.execute(Files.readString(OLD.resolve("database-v7.sql"), StandardCharsets.UTF_8));
        Flyway.configure()
                .dataSource(old)
                .javaMigrations(new WordsBecomeParts())
                .load()
                .migrate();
        SqlSessionFactoryBean sessions = new SqlSessionFactoryBean();
        Configuration asInTheApplication = new Configuration();
        asInTheApplication.setMapUnderscoreToCamelCase(true);
        asInTheApplication.setArgNameBasedConstructorAutoMapping(true);
        asInTheApplication.addMapper(ShowMapper.class);
        sessions.setConfiguration(asInTheApplication);
        sessions.setDataSource(old);
        shows = new Shows(
                new SqlSessionTemplate(sessions.getObject()).getMapper(ShowMapper.class),
                new TransactionTemplate(new JdbcTransactionManager(old)),
                baton.bean(Clock.class),
                baton.bean(KnownDays.class));
    }

    private static String csv(String file) throws Exception {
        return Files.readString(OLD.resolve(file), StandardCharsets.UTF_8);
    }

    /** The cue lists were saved by that version itself. */
    @Test
    void itsShowsSayWhatTheySaid() throws Exception {
        assertThat("\uFEFF" + CueTable.of(shows.get(1)).csv()).isEqualTo(csv("ferryman.csv"));
        assertThat("\uFEFF" + CueTable.of(shows.get(2)).csv()).isEqualTo(csv("vigil.csv"));
        assertThat(shows.get(1).devices()).hasSize(9).allMatch(d -> !d.phrases().isEmpty());
    }

    @Test
    void aSectionThatIsNamedLikeALinkIsNoneAndALinkIsOne() {
        Score score = shows.get(3).items().get(0).score().orElseThrow();
        assertThat(score.section("B").orElseThrow().name()).isEqualTo("Reprise as Z");
        assertThat(score.section("B").orElseThrow().as()).isEmpty();
        assertThat(score.section("C").orElseThrow().as()).contains("A");
        assertThat(score.section("C").orElseThrow().without()).containsExactly("1", "2");
    }

    @Test
    void aTempoBehindAPickUpStandsAtTheFirstBeat() {
        Show show = shows.get(4);
        assertThat(show.name()).isEqualTo("Slow – “quoted”; a + b");
        Score score = show.items().get(0).score().orElseThrow();
        assertThat(score.tempi()).extracting(t -> t.tick()).containsExactly(0L, 960L);
        assertThat(score.tempi()).extracting(t -> t.tempo()).containsExactly(Tempo.quarters(100), Tempo.quarters(120));
        assertThat(score.films().get(0).name()).isEqualTo("The crossing");
        Cue cue = show.cues().findFirst().orElseThrow();
        assertThat(cue.start()).isEqualTo(new Start.AtPosition(new Position(3, 2, 0), -20));
        List<Call> calls = cue.calls();
        assertThat(calls.get(0).amount()).contains(new Amount.Text("a; b + c @ 2 s"));
        assertThat(calls.get(1).amount()).contains(new Amount.Measure(-7.5));
        assertThat(calls.get(1).offset().thousandths()).isEqualTo(-200);
        Motion.Move move = (Motion.Move) calls.get(1).motion().orElseThrow();
        assertThat(move.points()).containsExactly(new Motion.Point(0.25, -8), new Motion.Point(0.5, -12));
        assertThat(calls.get(2).motion()).map(m -> m.getClass().getSimpleName()).contains("Wave");
    }

    @Test
    void whatCannotBeReadStandsOnTheShelfWithItsOldWords() {
        assertThat(shows.find(5)).isEqualTo(Optional.empty());
        assertThat(shows.spines()).filteredOn(s -> s.id() == 5).singleElement().satisfies(s -> assertThat(s.trouble())
                .contains("item 2: id: it is missing"));
        assertThatThrownBy(() -> shows.get(5)).isInstanceOf(UnreadableShow.class);
        assertThat(shows.raw(5)).contains("123456 A Far away", "Fine");
    }

    @Test
    void snippetsComeAlong() {
        String content = sql.queryForObject("SELECT content FROM snippets", String.class);
        Snippet snippet = StoredForm.read(content, Snippet.class);
        assertThat(snippet.name()).isEqualTo("Kept; with “quotes”");
        assertThat(snippet.cues().rows().get(0).cells()).containsExactly("Amber wash");
    }
}
