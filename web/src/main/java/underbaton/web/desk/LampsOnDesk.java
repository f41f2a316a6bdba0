package underbaton.web.desk;

import java.util.Map;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.stage.Lamps;
import underbaton.web.stage.Stage;

/**
 * The lamps of open Desks: how each machine is, when that changes, and apart from it what is measured of them, which is another
 * each second and goes only where somebody looks.
 */
@Component
class LampsOnDesk {

    private final Stage stage;

    LampsOnDesk(Stage stage, Lamps lamps, Live live, Painting painting, JsonMapper json) {
        this.stage = stage;
        live.paints("lamps", whenOpen(() -> painting.of("page/lamps", "lamps", Map.of("lamps", lamps.all()))));
        live.paints("lamp-lines", whenOpen(() -> json.writeValueAsString(lamps.lines())));
    }

    private Live.Painter whenOpen(Supplier<String> drawing) {
        return showId -> stage.isOpen(showId) ? drawing.get() : "";
    }
}
