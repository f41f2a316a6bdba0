package underbaton.web.demo;

import java.util.List;
import java.util.Optional;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.stereotype.Component;
import underbaton.core.cue.Show;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Device;
import underbaton.standins.RehearsalRoom;
import underbaton.web.kernel.Settings;
import underbaton.web.library.Shows;
import underbaton.web.library.Spine;
import underbaton.web.stage.Stage;

/**
 * Puts the two demo shows on the shelf where they are missing, points their machines at the stand-ins' ports of this
 * run, and opens the first. What a person has changed in them stays.
 */
@Component
class DemoShows implements ApplicationRunner {

    private static final List<String> BOOKS = List.of("/demo/ferryman.book", "/demo/vigil.book");

    private final boolean wanted;
    private final int firstPort;
    private final Shows shows;
    private final Stage stage;

    DemoShows(Settings settings, Shows shows, Stage stage) {
        this.wanted = settings.demo();
        this.firstPort = settings.standins().port();
        this.shows = shows;
        this.stage = stage;
    }

    @Override
    public void run(ApplicationArguments arguments) {
        if (!wanted) {
            return;
        }
        for (String resource : BOOKS) {
            DemoBook book = new DemoBook(resource, firstPort);
            Optional<Spine> kept = shows.spines().stream()
                    .filter(s -> s.name().equals(book.name()))
                    .findFirst();
            // One that cannot be read is told on its shelf, and keeps its name.
            (kept.isPresent() ? kept.get().show() : Optional.of(shows.create(book.name(), book::writeInto)))
                    .ifPresent(this::pointAtStandIns);
        }
        if (stage.openShow().isEmpty()) {
            shows.all().stream().findFirst().ifPresent(s -> stage.open(s.id()));
        }
    }

    private void pointAtStandIns(Show show) {
        for (Device device : show.devices()) {
            int place = RehearsalRoom.NAMES.indexOf(device.name());
            int port = RehearsalRoom.portOf(firstPort, place);
            if (place >= 0
                    && device.connection() instanceof Connection.Network now
                    && now.host().equals("127.0.0.1")
                    && now.port() != port) {
                shows.edit(
                        show.id(),
                        "point at the stand-ins",
                        s -> s.withDevice(s.device(device.id()).orElseThrow().withConnection(now.withPort(port))));
            }
        }
    }
}
