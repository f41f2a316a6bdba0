package underbaton.web.linecheck;

import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.cue.Show;
import underbaton.core.engine.catchup.Stops;
import underbaton.core.loop.Clock;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.web.library.Plans;
import underbaton.web.library.Shows;
import underbaton.web.page.Pages;
import underbaton.web.stage.LineTrials;
import underbaton.web.stage.Stage;
import underbaton.web.stage.Tried;

/** Line check: down the rig, machine by machine; sent, arrived, seen. */
@Controller
class LineCheckController {

    private final Shows shows;
    private final Stage stage;
    private final LineTrials trials;
    private final Plans plans;
    private final Pages pages;
    private final LineCheckMapper mapper;
    private final Clock clock;

    LineCheckController(
            Shows shows,
            Stage stage,
            LineTrials trials,
            Pages pages,
            LineCheckMapper mapper,
            Clock clock,
            Plans plans) {
        this.plans = plans;
        this.shows = shows;
        this.stage = stage;
        this.trials = trials;
        this.pages = pages;
        this.mapper = mapper;
        this.clock = clock;
    }

    @GetMapping("/shows/{showId}/linecheck")
    String page(@PathVariable int showId, Model model) {
        Show show = pages.open(showId, "Linecheck", model);
        model.addAttribute("lines", lines(show));
        model.addAttribute("unstoppable", Stops.missing(plans.of(show)));
        return "linecheck/linecheck";
    }

    private List<LineView> lines(Show show) {
        return show.devices().stream()
                .map(d -> LineView.of(d, mapper.newest(show.id(), d.id())))
                .toList();
    }

    @PostMapping("/shows/{showId}/linecheck/{deviceId}/send")
    String send(@PathVariable int showId, @PathVariable int deviceId, @RequestParam int phrase, Model model) {
        Show show = shows.get(showId);
        Device device = show.device(deviceId)
                .orElseThrow(() -> new Refusal("device", "That machine is no longer in the rig; reload the page."));
        Phrase tried = device.phrase(phrase)
                .filter(p -> !p.guarded())
                .orElseThrow(() -> new Refusal("phrase", "Choose a phrase that is not guarded to try the line with."));
        Tried result = trials.send(showId, PlannedCall.of(device, tried));
        mapper.add(new LineCheckMapper.Row(
                0,
                showId,
                deviceId,
                clock.epochMicros() / 1000,
                tried.name(),
                result.sent(),
                result.acknowledged(),
                result.said().map(did -> did ? "yes" : "no").orElse(""),
                result.roundTripMicros(),
                result.trouble()));
        return table(show, model);
    }

    @PostMapping("/shows/{showId}/linecheck/results/{id}/seen")
    String seen(@PathVariable int showId, @PathVariable int id, @RequestParam String answer, Model model) {
        mapper.see(showId, id, answer.equals("yes") ? "yes" : "no");
        return table(shows.get(showId), model);
    }

    private String table(Show show, Model model) {
        model.addAttribute("show", show);
        model.addAttribute("lines", lines(show));
        return "linecheck/linecheck :: lines";
    }
}
