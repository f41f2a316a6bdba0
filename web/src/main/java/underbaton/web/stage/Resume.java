package underbaton.web.stage;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import underbaton.web.shows.Shows;

/** Puts the show that was on the desk when a crash came back there, as it stood. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
public class Resume implements ApplicationRunner {

    private static final Logger LOG = LoggerFactory.getLogger(Resume.class);

    private final DeskFile file;
    private final Shows shows;
    private final Stage stage;

    Resume(DeskFile file, Shows shows, Stage stage) {
        this.file = file;
        this.shows = shows;
        this.stage = stage;
    }

    @Override
    public void run(ApplicationArguments arguments) {
        file.read().filter(left -> shows.find(left.showId()).isPresent()).ifPresent(left -> {
            LOG.info("The show that was on the desk is there again, as it stood.");
            stage.resume(left);
        });
    }
}
