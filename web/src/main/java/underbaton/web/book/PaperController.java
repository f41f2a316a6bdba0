package underbaton.web.book;

import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.PlannedLength;
import underbaton.core.cue.Show;
import underbaton.core.file.CueTable;
import underbaton.core.rig.Device;
import underbaton.web.shows.Shows;

/** The whole book for paper: all cues, with what each machine gets. */
@Controller
class PaperController {

    private final Shows shows;

    PaperController(Shows shows) {
        this.shows = shows;
    }

    /** @param length as it is planned; empty when it is not */
    public record ItemSheet(Item item, String length, List<CueLine> cues) {}

    /** One cue. */
    public record CueLine(Cue cue, List<Gets> gets) {}

    /** @param code of the machine's department */
    public record Gets(String code, String machine, String says) {}

    @GetMapping("/shows/{showId}/book/paper")
    String paper(@PathVariable int showId, Model model) {
        Show show = shows.get(showId);
        model.addAttribute("show", show);
        model.addAttribute("count", show.cues().count());
        model.addAttribute(
                "sheets", show.items().stream().map(i -> sheet(show, i)).toList());
        return "book/paper";
    }

    private static ItemSheet sheet(Show show, Item item) {
        return new ItemSheet(
                item,
                PlannedLength.tell(item.plannedSeconds()),
                item.cues().stream().map(c -> new CueLine(c, gets(show, c))).toList());
    }

    private static List<Gets> gets(Show show, Cue cue) {
        return show.devices().stream()
                .filter(d -> !cue.callsFor(d.id()).isEmpty())
                .map(d -> gets(cue, d))
                .toList();
    }

    private static Gets gets(Cue cue, Device device) {
        return new Gets(device.department().code(), device.name(), CueTable.cell(cue, device));
    }
}
