package underbaton.web.hands;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.cue.HandPage;
import underbaton.core.cue.Show;
import underbaton.web.access.Visitor;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.stage.Stage;

/** Hand cues on a tablet of the venue: of whatever show is on the desk, the pages that it was given and nothing besides. */
@Controller
class TabletController {

    private final Stage stage;

    TabletController(Stage stage, Shows shows, Live live, Painting painting) {
        this.stage = stage;
        shows.watch((show, edit) -> live.changed("keys"));
        live.paintsEach("keys", (showId, page) -> stage.openShow()
                .filter(s -> s.id() == showId)
                .flatMap(s -> s.hands().stream()
                        .filter(p -> page.equals("" + p.id()))
                        .findFirst()
                        .map(p -> painting.of(
                                "hands/keys",
                                "keys",
                                Map.of("page", p, "rows", new HandsView(s, Optional.empty()).rows(p)))))
                .orElseGet(() -> painting.of("hands/keys", "none", Map.of())));
    }

    @GetMapping("/hands")
    String page(@RequestParam(defaultValue = "0") int page, Model model) {
        Show show = stage.openShow().orElse(null);
        Visitor visitor = Visitor.asks().orElse(Visitor.HERE);
        List<HandPage> given = show == null
                ? List.of()
                : show.hands().stream()
                        .filter(p -> visitor.works(show.id(), p.id()))
                        .toList();
        Optional<HandPage> shown = given.stream()
                .filter(p -> p.id() == page)
                .findFirst()
                .or(() -> given.stream().findFirst());
        model.addAttribute("show", show);
        model.addAttribute("given", given);
        model.addAttribute("page", shown.orElse(null));
        shown.ifPresent(p -> model.addAttribute("rows", new HandsView(show, Optional.empty()).rows(p)));
        model.addAttribute("script", "tablet");
        return "hands/tablet";
    }
}
