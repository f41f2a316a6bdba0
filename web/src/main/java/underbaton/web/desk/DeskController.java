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
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Refusal;
import underbaton.web.kernel.Typed;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.page.Pages;
import underbaton.web.record.Recorder;
import underbaton.web.stage.Edits;
import underbaton.web.stage.Lamps;
import underbaton.web.stage.Manners;
import underbaton.web.stage.Stage;
import underbaton.web.stage.Takeover;

/** The Desk: orders go straight to the performer, and the page follows by events. */
@Controller
class DeskController {

    /** By this a page sees that its show has left the desk; nothing at all would not be sent. */
    private static final String NOT_ON_DESK = " ";

    private final Shows shows;
    private final Stage stage;
    private final Takeover takeover;
    private final Manners manners;
    private final Lamps lamps;
    private final Recorder recorder;
    private final Pages pages;
    private final Clock clock;
    private final Destinations destinations;

    private final DeskOrders orders;

    DeskController(
            Shows shows,
            Stage stage,
            Takeover takeover,
            Manners manners,
            Lamps lamps,
            Recorder recorder,
            Pages pages,
            Live live,
            Painting painting,
            DeskOrders orders,
            Clock clock,
            Destinations destinations) {
        this.clock = clock;
        this.destinations = destinations;
        this.orders = orders;
        this.shows = shows;
        this.stage = stage;
        this.takeover = takeover;
        this.manners = manners;
        this.lamps = lamps;
        this.recorder = recorder;
        this.pages = pages;
        live.paints("desk", showId -> paint(painting, showId));
        live.paints(
                "waiting",
                showId -> painting.of("page/waiting", "waiting", Map.of("waiting", takeover.waiting(showId))));
    }

    private String paint(Painting painting, int showId) {
        Optional<Show> show = shows.find(showId);
        Optional<PlaybackState> state = stage.playback(showId);
        return show.isPresent() && state.isPresent()
                ? painting.of(
                        "desk/desk",
                        "open",
                        Map.of("desk", DeskView.of(show.get(), state.get(), clock, aside(showId, state.get()))))
                : NOT_ON_DESK;
    }

    private DeskView.Aside aside(int showId, PlaybackState state) {
        return new DeskView.Aside(
                offer(showId, state),
                stage.left(showId),
                takeover.waiting(showId),
                takeover.endsByTakingOver(showId),
                recorder.timings(showId, state.plan())
                        .map(t -> DeskView.Run.of(recorder.since(showId).orElse(clock.epochMicros()), t, ahead())),
                recorder.writesDown(),
                stage.troubles(showId),
                Math.abs(stage.performer(showId).unaccounted()));
    }

    /** By how many µs the time of day is ahead of that of the run: 0 while nobody sets it. */
    private long ahead() {
        return clock.epochMicros() - recorder.at(clock.nanos());
    }

    /** Nobody asks while the show plays on by itself from the book that it began with. */
    private Optional<DeskView.Offer> offer(int showId, PlaybackState state) {
        boolean moved = state.operator().moved();
        // In a hold, going on looks at what the book says.
        if (!moved && (!stage.bookChanged(showId) || state.progress().held())) {
            return Optional.empty();
        }
        String to = moved ? Destinations.STANDBY : Destinations.PRESENT;
        int count = destinations.of(showId, to).corrections(state).size();
        return moved || count > 0 ? Optional.of(new DeskView.Offer(to, count)) : Optional.empty();
    }

    @GetMapping("/shows/{showId}/desk")
    String page(@PathVariable int showId, Model model) {
        Show show = pages.open(showId, "Desk", model);
        stage.playback(showId)
                .ifPresent(s -> model.addAttribute("desk", DeskView.of(show, s, clock, aside(showId, s))));
        stage.playback(showId)
                .ifPresent(s -> model.addAttribute("manner", s.operator().options()));
        model.addAttribute("deeds", orders.table());
        model.addAttribute("lead", manners.cueToCueNanos() / 1_000_000_000L);
        model.addAttribute("edits", manners.edits());
        model.addAttribute("onAtOnce", manners.goesOnAtOnce());
        model.addAttribute("lamps", lamps.all());
        return "desk/desk";
    }

    /**
     * @param asks whether GO asks before it leaves a song
     * @param skipped {@code all}, or {@code left} for what they leave behind
     * @param again within so many ms another GO asks, 0–2,000
     * @param keeps whether a tempo of the day holds for the next items too
     * @param edits what becomes of edits while the show runs
     * @param onAtOnce whether going on after a hold makes the machines right on the way, and shows no sheet first
     * @param lead how long before a cue the music begins from cue to cue, s, 0–60
     */
    @PostMapping("/shows/{showId}/desk/manner")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void manner(
            @PathVariable int showId,
            @RequestParam(defaultValue = "false") boolean asks,
            @RequestParam String skipped,
            @RequestParam String again,
            @RequestParam(defaultValue = "false") boolean keeps,
            @RequestParam(defaultValue = "false") boolean onAtOnce,
            @RequestParam Edits edits,
            @RequestParam String lead) {
        manners.setGoesOnAtOnce(onAtOnce);
        manners.set(edits);
        manners.setCueToCue(Typed.number("lead", lead));
        stage.behave(showId, Manners.of(asks, skipped.equals("all"), Typed.number("again", again), keeps));
    }

    /** Somebody has seen what could not be done. */
    @PostMapping("/shows/{showId}/desk/seen")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void seen(@PathVariable int showId) {
        stage.troublesSeen(showId);
    }

    /** Takes over the edits that were made while the show runs. */
    @PostMapping("/shows/{showId}/desk/take-over")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void takeOver(@PathVariable int showId) {
        takeover.takeOver(showId);
    }

    /** The beats of an item as it is being played, from memory. */
    @GetMapping("/shows/{showId}/desk/beats")
    @ResponseBody
    Beats beats(@PathVariable int showId, @RequestParam int item) {
        return stage.playback(showId)
                .flatMap(s -> s.plan().item(item))
                .map(Beats::of)
                .orElse(new Beats(item, List.of(), List.of(), 0));
    }

    @PostMapping("/shows/{showId}/desk/{order:[a-z]+}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void order(@PathVariable int showId, @PathVariable String order) {
        orders.give(order, showId);
    }

    @PostMapping("/shows/{showId}/desk/jump")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void jump(@PathVariable int showId, @RequestParam String number) {
        CueNumber wanted = CueNumber.of(number);
        Cue cue = shows.get(showId)
                .cueNumbered(wanted)
                .orElseThrow(() -> new Refusal("number", "There is no cue " + wanted + " in this show."));
        stage.order(showId, "jump to cue " + wanted, new Order.StandBy(cue.id()));
    }
}
