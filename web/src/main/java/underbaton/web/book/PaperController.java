package underbaton.web.book;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.cue.Show;
import underbaton.core.loop.Clock;
import underbaton.core.plan.Plan;
import underbaton.core.rig.Department;
import underbaton.core.timings.Moment;
import underbaton.core.timings.Timings;
import underbaton.web.library.Plans;
import underbaton.web.library.Shows;
import underbaton.web.page.Papers;
import underbaton.web.record.PerformanceMapper;
import underbaton.web.record.Recorder;

/** The book for paper: all that is played, with what each machine or those of one department get; and the running order with its times. */
@Controller
class PaperController {

    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("d MMMM yyyy", Locale.ENGLISH).withZone(ZoneId.systemDefault());

    private final Shows shows;
    private final Plans plans;
    private final PerformanceMapper performances;
    private final Recorder recorder;
    private final Clock clock;

    PaperController(Shows shows, Plans plans, PerformanceMapper performances, Recorder recorder, Clock clock) {
        this.performances = performances;
        this.recorder = recorder;
        this.shows = shows;
        this.plans = plans;
        this.clock = clock;
    }

    /** @param of a department's code in small letters; empty for all */
    @GetMapping("/shows/{showId}/book/paper")
    String paper(@PathVariable int showId, @RequestParam(defaultValue = "") String of, Model model) {
        Show show = shows.get(showId);
        Plan plan = plans.of(show);
        Optional<Department> department = Arrays.stream(Department.values())
                .filter(d -> d.key().equals(of))
                .findFirst();
        List<PaperSheet> sheets = plan.items().stream()
                .map(i -> PaperSheet.of(show, plan, i, department))
                .toList();
        fill(show, department.map(Department::key).orElse("all"), model);
        model.addAttribute("of", department.map(Department::title).orElse(""));
        model.addAttribute("count", sheets.stream().mapToLong(PaperSheet::cues).sum());
        model.addAttribute("early", PaperSheet.early(show, department));
        model.addAttribute("sheets", sheets);
        return "book/paper";
    }

    private void fill(Show show, String here, Model model) {
        Papers.open(show, here, model);
        model.addAttribute("day", DAY.format(Instant.ofEpochMilli(clock.epochMicros() / 1000)));
    }

    @GetMapping("/shows/{showId}/book/order")
    String order(@PathVariable int showId, Model model) {
        Show show = shows.get(showId);
        Plan plan = plans.of(show);
        recorder.flush();
        Optional<PerformanceMapper.RunRow> last =
                performances.runs(showId).stream().findFirst();
        Map<Integer, Long> lasted = last.map(run -> lasted(plan, run)).orElse(Map.of());
        fill(show, "order", model);
        model.addAttribute(
                "lastDay",
                last.map(r -> DAY.format(Instant.ofEpochMilli(r.beganMicros() / 1000)))
                        .orElse(""));
        model.addAttribute("order", RunningOrder.of(plan, lasted));
        return "book/order";
    }

    /** By item, how long it lasted in a run, µs; what has not ended is left out. */
    private Map<Integer, Long> lasted(Plan plan, PerformanceMapper.RunRow run) {
        List<Moment> moments = performances.moments(run.beganMicros()).stream()
                .map(Recorder::moment)
                .toList();
        OptionalLong ended = run.endedMicros() == null ? OptionalLong.empty() : OptionalLong.of(run.endedMicros());
        return Timings.of(Recorder.planned(plan), moments, ended, clock.epochMicros()).rows().stream()
                .filter(r -> r.endedAt().isPresent())
                .collect(Collectors.toMap(r -> r.item().itemId(), Timings.Row::lastedMicros, Long::sum));
    }
}
