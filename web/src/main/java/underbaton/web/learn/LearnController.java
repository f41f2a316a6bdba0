package underbaton.web.learn;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import underbaton.core.cue.Show;
import underbaton.core.loop.Clock;
import underbaton.core.midi.Message;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Answer;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Utterance;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.stage.LineTrials;
import underbaton.web.stage.Stage;

/** Learning: what comes in is shown, with where it is bound already, and taken over as what a phrase says. */
@Controller
@RequestMapping("/shows/{showId}/rig/devices/{deviceId}/learn")
class LearnController {

    private static final int SHOWN = 10;
    private static final long ANSWERED_NANOS = TimeUnit.SECONDS.toNanos(2);
    private static final long MOVED_NANOS = TimeUnit.SECONDS.toNanos(6);
    private static final long STEP_NANOS = TimeUnit.MILLISECONDS.toNanos(20);

    private final Shows shows;
    private final Traffic traffic;
    private final Stage stage;
    private final LineTrials trials;
    private final Clock clock;

    LearnController(
            Shows shows, Traffic traffic, Live live, Painting painting, Stage stage, LineTrials trials, Clock clock) {
        this.stage = stage;
        this.trials = trials;
        this.clock = clock;
        this.shows = shows;
        this.traffic = traffic;
        live.paints("arrivals", showId -> shows.find(showId)
                .map(s -> painting.of("learn/learn", "arrivals", Map.of("arrivals", newest(s))))
                .orElse(""));
        traffic.watch(() -> live.changed("arrivals"));
    }

    /** The newest that came in, the last one first. */
    private List<Arrival> newest(Show show) {
        List<Entry> in = traffic.after(0, Integer.MAX_VALUE).stream()
                .filter(e -> e.direction() == Entry.Direction.IN && e.showId() == show.id())
                .toList();
        List<Arrival> newest = new ArrayList<>();
        for (int i = in.size() - 1; i >= 0 && newest.size() < SHOWN; i--) {
            Arrival.of(show, in.get(i)).ifPresent(newest::add);
        }
        return newest;
    }

    @GetMapping
    String box(@PathVariable int showId, @PathVariable int deviceId, Model model) {
        Show show = shows.get(showId);
        model.addAttribute("show", show);
        model.addAttribute("device", device(show, deviceId));
        model.addAttribute("arrivals", newest(show));
        model.addAttribute("since", traffic.last());
        return "learn/learn :: box";
    }

    /**
     * Takes what came in as one phrase, in the order in which it came.
     *
     * @param entry numbers of the log's lines
     */
    @PostMapping
    String take(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @RequestParam(defaultValue = "") List<Long> entry,
            @RequestParam String name,
            @RequestParam(defaultValue = "holds") String effect) {
        Show show = shows.get(showId);
        List<Message> messages = traffic.after(0, Integer.MAX_VALUE).stream()
                .filter(e -> entry.contains(e.number()) && e.direction() == Entry.Direction.IN)
                .flatMap(e -> Arrival.of(show, e).stream())
                .map(a -> a.message().shiftedTo(16 - device(show, deviceId).channel()))
                .toList();
        if (messages.isEmpty()) {
            throw new Refusal("entry", "Touch the machine first, and tick what the phrase should say.");
        }
        shows.edit(
                showId,
                "learn " + name,
                s -> s.withPhrase(deviceId, new Phrase(0, name, messages, Effect.of(effect), false)));
        return "redirect:/shows/" + showId + "/rig/devices/" + deviceId + "/phrases";
    }

    /**
     * A phrase is fired, and what its machine says then is told as the phrase's answer; where a call adds an amount, somebody moves it
     * at the machine, and the blank stands where the amount came.
     */
    @PostMapping(value = "/answer", produces = "text/plain;charset=UTF-8")
    @ResponseBody
    String answer(@PathVariable int showId, @PathVariable int deviceId, @RequestParam int phrase) {
        Show show = shows.get(showId);
        Device device = device(show, deviceId);
        Phrase tried =
                device.phrase(phrase).orElseThrow(() -> new Refusal("phrase", "That phrase is gone; reload the page."));
        boolean moved = tried.argument().isPresent();
        long since = traffic.last();
        if (tried.guarded()) {
            throw new Refusal(
                    "phrase", "“" + tried.name() + "” is guarded: write its answer, or learn it before it is.");
        }
        if (!moved) {
            trials.send(showId, PlannedCall.of(device, tried));
        }
        long end = clock.nanos() + (moved ? MOVED_NANOS : ANSWERED_NANOS);
        while (clock.nanos() < end) {
            Optional<Message> said = traffic.after(since, Integer.MAX_VALUE).stream()
                    .filter(e -> e.direction() == Entry.Direction.IN && e.deviceId() == deviceId)
                    .flatMap(e -> Arrival.of(show, e).stream())
                    .map(a -> a.message().shiftedTo(16 - device.channel()))
                    .findFirst();
            if (said.isPresent()) {
                return new Answer(new Utterance(said.get(), 0, 0, moved), Answer.USUAL_MS).write(device.wording());
            }
            LockSupport.parkNanos(this, STEP_NANOS);
        }
        throw new Refusal(
                "answer", device.name() + " has said nothing" + (moved ? ": move the control at the machine." : "."));
    }

    private static Device device(Show show, int deviceId) {
        return show.device(deviceId)
                .orElseThrow(() -> new Refusal("device", "That machine is no longer in the rig; reload the page."));
    }
}
