package underbaton.web.stage;

import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import underbaton.web.shows.Shows;

/**
 * Puts the show that was on the desk when a crash came back there, as it stood; after a quiet end the one that was there last, from
 * its beginning, so that relays pass on from the start of the application.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
public class Resume implements ApplicationRunner {

    private static final Logger LOG = LoggerFactory.getLogger(Resume.class);

    private final DeskFile file;
    private final Shows shows;
    private final Stage stage;
    private final Manners manners;

    Resume(DeskFile file, Shows shows, Stage stage, Manners manners) {
        this.manners = manners;
        this.file = file;
        this.shows = shows;
        this.stage = stage;
    }

    @Override
    public void run(ApplicationArguments arguments) {
        Optional<DeskFile.Standing> left =
                file.read().filter(l -> shows.find(l.showId()).isPresent());
        if (left.isPresent()) {
            LOG.info("The show that was on the desk is there again, as it stood.");
            stage.resume(left.get());
            return;
        }
        manners.lastOnDesk().filter(id -> shows.find(id).isPresent()).ifPresent(stage::open);
    }
}
