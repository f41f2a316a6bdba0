package underbaton.web.book;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import underbaton.core.cue.Show;
import underbaton.core.loop.Clock;
import underbaton.core.plan.Plan;
import underbaton.web.library.Plans;
import underbaton.web.library.Shows;

/** The whole book for paper: all that is played, with what each machine gets. */
@Controller
class PaperController {

    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("d MMMM yyyy", Locale.ENGLISH).withZone(ZoneId.systemDefault());

    private final Shows shows;
    private final Plans plans;
    private final Clock clock;

    PaperController(Shows shows, Plans plans, Clock clock) {
        this.shows = shows;
        this.plans = plans;
        this.clock = clock;
    }

    @GetMapping("/shows/{showId}/book/paper")
    String paper(@PathVariable int showId, Model model) {
        Show show = shows.get(showId);
        Plan plan = plans.of(show);
        List<PaperSheet> sheets =
                plan.items().stream().map(i -> PaperSheet.of(show, plan, i)).toList();
        model.addAttribute("show", show);
        model.addAttribute("day", DAY.format(Instant.ofEpochMilli(clock.epochMicros() / 1000)));
        model.addAttribute("count", plan.cues().size());
        model.addAttribute("early", PaperSheet.early(show));
        model.addAttribute("sheets", sheets);
        return "book/paper";
    }
}
