package underbaton.web.desk;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Show;
import underbaton.core.perform.Standing;
import underbaton.core.rig.Refusal;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.page.Pages;
import underbaton.web.shows.Shows;
import underbaton.web.stage.Stage;

/** The Desk: orders go straight to the performer, and the page follows by events. */
@Controller
class DeskController {

    private final Shows shows;
    private final Stage stage;
    private final Pages pages;

    private final DeskOrders orders;

    DeskController(Shows shows, Stage stage, Pages pages, Live live, Painting painting, DeskOrders orders) {
        this.orders = orders;
        this.shows = shows;
        this.stage = stage;
        this.pages = pages;
        live.paints("desk", showId -> paint(painting, showId));
        live.paints(
                "lamps",
                showId ->
                        stage.isOpen(showId) ? painting.of("page/lamps", "lamps", Map.of("lamps", stage.lamps())) : "");
    }

    private String paint(Painting painting, int showId) {
        Optional<Show> show = shows.find(showId);
        Optional<Standing> standing = stage.standing(showId);
        return show.isPresent() && standing.isPresent()
                ? painting.of("desk/desk", "open", Map.of("desk", DeskView.of(show.get(), standing.get())))
                : "";
    }

    @GetMapping("/shows/{showId}/desk")
    String page(@PathVariable int showId, Model model) {
        Show show = pages.open(showId, "Desk", model);
        stage.standing(showId).ifPresent(s -> model.addAttribute("desk", DeskView.of(show, s)));
        model.addAttribute("lamps", stage.lamps());
        return "desk/desk";
    }

    /** The beats of an item as it is being played, from memory. */
    @GetMapping("/shows/{showId}/desk/beats")
    @ResponseBody
    Beats beats(@PathVariable int showId, @RequestParam int item) {
        return stage.standing(showId)
                .flatMap(s -> s.plan().item(item))
                .map(Beats::of)
                .orElse(new Beats(item, List.of(), List.of(), 0));
    }

    @PostMapping("/shows/{showId}/desk/go")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void go(@PathVariable int showId) {
        orders.give("go", showId);
    }

    @PostMapping("/shows/{showId}/desk/back")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void back(@PathVariable int showId) {
        orders.give("back", showId);
    }

    @PostMapping("/shows/{showId}/desk/next")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void next(@PathVariable int showId) {
        orders.give("next", showId);
    }

    @PostMapping("/shows/{showId}/desk/stop")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void stop(@PathVariable int showId) {
        orders.give("stop", showId);
    }

    @PostMapping("/shows/{showId}/desk/jump")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void jump(@PathVariable int showId, @RequestParam String number) {
        CueNumber wanted = CueNumber.of(number);
        Cue cue = shows.get(showId)
                .cueNumbered(wanted)
                .orElseThrow(() -> new Refusal("number", "There is no cue " + wanted + " in this show."));
        stage.order(showId, "jump to cue " + wanted, p -> p.jump(cue.id()));
    }
}
