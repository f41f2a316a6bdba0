package underbaton.web.library;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.web.UnderBaton;
import underbaton.web.kernel.Settings;

class BackupsTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final int SHOW = 987_654;

    /** On 25 October 2026 the hour from 2 to 3 came twice in central Europe. */
    @Test
    void theyStandInTheOrderInWhichTheyWereMade() throws Exception {
        Path own = Files.createDirectories(
                baton.bean(Settings.class).data().resolve("backups").resolve("" + SHOW));
        List<String> made = List.of(
                "2026-10-24 10.00.00 r1.json",
                "2026-10-25 02.10.00 +0200 r2.json",
                "2026-10-25 02.50.00 +0200 r3.json",
                "2026-10-25 02.10.00 +0100 r4.json",
                "2026-10-25 02.50.00 +0100 r5.json");
        for (String name : made) {
            Files.writeString(own.resolve(name), "{}");
        }
        assertThat(baton.bean(Backups.class).of(SHOW))
                .extracting(Backups.Backup::revision)
                .containsExactly(5, 4, 3, 2, 1);
        assertThat(baton.bean(Backups.class).content(SHOW, made.get(1))).hasSize(2);
    }
}
