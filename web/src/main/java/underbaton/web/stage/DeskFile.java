package underbaton.web.stage;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import underbaton.core.engine.RunSnapshot;
import underbaton.core.file.StoredForm;
import underbaton.core.plan.OutTonight;
import underbaton.core.rig.Refusal;
import underbaton.web.Settings;

/**
 * The file that says how the show on the desk stands. It is there while a show is on the desk; one that is found at the start
 * is left from a crash. A disk that takes nothing is told once, and the show goes on.
 */
@Component
class DeskFile {

    private static final Logger LOG = LoggerFactory.getLogger(DeskFile.class);
    private static final long LARGEST = 8_000_000;

    private final Path file;
    private boolean troubled;

    /**
     * @param showId of the show on the desk
     * @param out what was out tonight
     * @param run the performance that went on, by the moment it began, µs since 1970; 0 for none
     */
    record Standing(int showId, RunSnapshot kept, OutTonight out, long run) {}

    DeskFile(Settings settings) {
        file = settings.data().resolve("desk.json");
    }

    synchronized void write(Standing standing) {
        Path fresh = file.resolveSibling("desk.json.new");
        try {
            Files.createDirectories(file.getParent());
            Files.writeString(fresh, StoredForm.write(standing));
            Files.move(fresh, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            troubled = false;
        } catch (IOException full) {
            if (!troubled) {
                LOG.warn(
                        "How the show stands could not be written ({}); after a crash it cannot go on.",
                        full.toString());
            }
            troubled = true;
        }
    }

    /** What a crash has left, if it has and can be read. */
    synchronized Optional<Standing> read() {
        try {
            if (!Files.exists(file) || Files.size(file) > LARGEST) {
                return Optional.empty();
            }
            return Optional.of(StoredForm.read(Files.readString(file), Standing.class));
        } catch (IOException | Refusal unreadable) {
            LOG.warn("How the show stood before the crash cannot be read: {}", unreadable.toString());
            return Optional.empty();
        }
    }

    synchronized void forget() {
        try {
            Files.deleteIfExists(file);
        } catch (IOException stays) {
            LOG.warn("{} could not be deleted ({}).", file, stays.toString());
        }
    }
}
