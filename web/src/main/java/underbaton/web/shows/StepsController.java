package underbaton.web.shows;

import java.util.Map;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.json.JsonMapper;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;

/** Undo and redo of any page that is drawn anew afterwards, and their words for all pages. */
@RestController
class StepsController {

    private final Shows shows;

    StepsController(Shows shows, Live live, JsonMapper json) {
        this.shows = shows;
        shows.watch((show, edit) -> live.changed("steps"));
        shows.watchOrderOfSteps(() -> live.changed("steps"));
        live.paints(
                "steps",
                showId -> shows.drawn(
                        showId,
                        show -> json.writeValueAsString(
                                Map.of("of", shows.steps(showId), "told", shows.told(showId)))));
    }

    /** @return what was undone, in words */
    @PostMapping(path = "/shows/{showId}/steps/undo", produces = MediaType.TEXT_PLAIN_VALUE + ";charset=UTF-8")
    String undo(@PathVariable int showId) {
        shows.get(showId);
        return shows.undone(showId);
    }

    /** @return what was done again, in words */
    @PostMapping(path = "/shows/{showId}/steps/redo", produces = MediaType.TEXT_PLAIN_VALUE + ";charset=UTF-8")
    String redo(@PathVariable int showId) {
        shows.get(showId);
        return shows.redone(showId);
    }
}
