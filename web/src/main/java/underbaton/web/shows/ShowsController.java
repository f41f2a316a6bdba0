package underbaton.web.shows;

import jakarta.servlet.http.HttpServletResponse;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.perform.Standing;
import underbaton.web.stage.Stage;

/** The shelf of shows. */
@Controller
class ShowsController {

    private final Shows shows;
    private final Stage stage;

    ShowsController(Shows shows, Stage stage) {
        this.shows = shows;
        this.stage = stage;
    }

    @GetMapping("/")
    String page(Model model) {
        model.addAttribute("shows", shows.all());
        model.addAttribute("openId", stage.openShow().map(s -> s.id()).orElse(0));
        model.addAttribute("running", running().orElse(null));
        return "shows/shows";
    }

    /** What the show on the desk is in the middle of, if it is. */
    private Optional<String> running() {
        return stage.openShow().flatMap(s -> stage.standing(s.id())
                .flatMap(Standing::last)
                .map(f ->
                        s.name() + " is running on the desk, at cue " + f.cue().number() + "."));
    }

    /** Answers with where to go: another page has other styles and scripts, so it must be opened, not swapped in. */
    @PostMapping("/shows")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void create(@RequestParam String name, HttpServletResponse response) {
        int id = shows.create(name).id();
        stage.open(id);
        response.setHeader("HX-Redirect", "/shows/" + id + "/rig");
    }

    @PostMapping("/shows/{showId}/open")
    String open(@PathVariable int showId, @RequestParam(defaultValue = "book") String then) {
        stage.open(showId);
        return "redirect:/shows/" + showId + "/" + (then.matches("[a-z]+") ? then : "book");
    }

    @PostMapping("/shows/{showId}/rename")
    String rename(@PathVariable int showId, @RequestParam String name) {
        shows.edit(showId, "rename the show", s -> s.renamed(name));
        return "redirect:/";
    }

    @PostMapping("/shows/{showId}/delete")
    String delete(@PathVariable int showId) {
        if (stage.isOpen(showId)) {
            stage.close();
        }
        shows.delete(showId);
        return "redirect:/";
    }
}
