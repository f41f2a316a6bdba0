package underbaton.web.rig;

import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.web.library.Shows;
import underbaton.web.page.Papers;

/** The line list of the rig for paper: each machine, how it is reached, how it counts, and what is to be minded on its line. */
@Controller
class LineListController {

    private final Shows shows;

    LineListController(Shows shows) {
        this.shows = shows;
    }

    /**
     * A machine.
     *
     * @param way how it is reached and counts
     * @param minds what else is on its line
     */
    public record Line(Device device, String way, List<String> minds) {}

    @GetMapping("/shows/{showId}/rig/paper")
    String paper(@PathVariable int showId, Model model) {
        Show show = shows.get(showId);
        Papers.open(show, "lines", model);
        model.addAttribute(
                "lines",
                show.devices().stream()
                        .map(d -> new Line(d, WayTold.of(d), WayTold.clashes(show, d)))
                        .toList());
        return "rig/lines";
    }
}
