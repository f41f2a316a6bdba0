package underbaton.web.performances;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.cue.Show;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Refusal;
import underbaton.core.timings.Moment;
import underbaton.web.library.Plans;
import underbaton.web.page.Pages;
import underbaton.web.record.PerformanceMapper;
import underbaton.web.record.Recorder;

/** The performances: how each run went, item by item beside the plan, for the screen and on paper. */
@Controller
class PerformancesController {

    private static final DateTimeFormatter NAME =
            DateTimeFormatter.ofPattern("EEE d MMM, HH:mm").withZone(ZoneId.systemDefault());

    private final PerformanceMapper mapper;
    private final Recorder recorder;
    private final Plans plans;
    private final Pages pages;
    private final Clock clock;

    /** One run in the list of all. */
    public record Named(long key, String name) {}

    PerformancesController(PerformanceMapper mapper, Recorder recorder, Plans plans, Pages pages, Clock clock) {
        this.mapper = mapper;
        this.recorder = recorder;
        this.plans = plans;
        this.pages = pages;
        this.clock = clock;
    }

    /** @param run the one that is shown; 0 for the newest */
    @GetMapping("/shows/{showId}/performances")
    String page(@PathVariable int showId, @RequestParam(defaultValue = "0") long run, Model model) {
        Show show = pages.open(showId, "Performances", model);
        recorder.flush();
        List<PerformanceMapper.RunRow> runs = mapper.runs(showId);
        Optional<PerformanceMapper.RunRow> chosen =
                runs.stream().filter(r -> run == 0 || r.beganMicros() == run).findFirst();
        if (run != 0 && chosen.isEmpty()) {
            throw new Refusal("run", "That performance is not kept any more; choose another one.");
        }
        model.addAttribute(
                "runs",
                runs.stream()
                        .map(r -> new Named(
                                r.beganMicros(), NAME.format(Instant.EPOCH.plus(r.beganMicros(), ChronoUnit.MICROS))))
                        .toList());
        model.addAttribute("view", chosen.map(r -> view(show, r)).orElse(null));
        return "performances/performances";
    }

    private PerformanceView view(Show show, PerformanceMapper.RunRow row) {
        List<Moment> moments =
                mapper.moments(row.beganMicros()).stream().map(Recorder::moment).toList();
        boolean goesOn = recorder.since(show.id()).orElse(0) == row.beganMicros();
        return PerformanceView.of(row, moments, plans.of(show), goesOn, recorder.at(clock.nanos()));
    }

    /** Throws a run away; one that goes on stays. */
    @PostMapping("/shows/{showId}/performances/forget")
    String forget(@PathVariable int showId, @RequestParam long run) {
        boolean own = mapper.run(run).filter(r -> r.showId() == showId).isPresent();
        if (own && recorder.since(showId).orElse(0) == run) {
            throw new Refusal("run", "This performance goes on; end it on the Desk first.");
        }
        if (own) {
            mapper.forgetMoments(run);
            mapper.forget(run);
        }
        return "redirect:/shows/" + showId + "/performances";
    }
}
