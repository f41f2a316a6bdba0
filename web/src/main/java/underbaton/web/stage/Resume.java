package underbaton.web.stage;

import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import underbaton.web.kernel.Alarm;
import underbaton.web.library.Shows;

/**
 * Puts the show that was on the desk when a crash came back there, as it stood; after a quiet end the one that was there last, from
 * its beginning, so that relays pass on from the start of the application.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
public class Resume implements ApplicationRunner, Alarm {

    private static final Logger LOG = LoggerFactory.getLogger(Resume.class);

    private final DeskFile file;
    private final Shows shows;
    private final Stage stage;
    private final Manners manners;
    private volatile String trouble = "";

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
        if (left.isPresent() && isPut("as it stood", () -> stage.resume(left.get()))) {
            return;
        }
        manners.lastOnDesk()
                .filter(id -> shows.find(id).isPresent())
                .ifPresent(id -> isPut("from its beginning", () -> stage.open(id)));
    }

    /** Whatever is wrong with a show, the application starts. */
    private boolean isPut(String how, Runnable puts) {
        try {
            puts.run();
            LOG.info("The show that was on the desk is there again, {}.", how);
            return true;
        } catch (RuntimeException | StackOverflowError fault) {
            LOG.error("The show that was on the desk could not be put there again, {}", how, fault);
            trouble = "The show that was on the desk could not be put there again (" + fault.getMessage()
                    + "). All others can be opened on the page Shows, and there its backups too.";
            return false;
        }
    }

    @Override
    public List<String> alarms() {
        return trouble.isEmpty() || stage.openShow().isPresent() ? List.of() : List.of(trouble);
    }
}
