package underbaton.web.desk;

import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.music.Playing;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Refusal;
import underbaton.core.timings.Moment;
import underbaton.web.live.Live;
import underbaton.web.record.Recorder;
import underbaton.web.stage.Stage;
import underbaton.web.stage.Takeover;

/** Writing while the show runs: notes at the present cue and bar, and the places at which GO came. */
@Controller
class NotesController {

    private static final int LONGEST = 240;

    private final Destinations destinations;
    private final Stage stage;
    private final Takeover takeover;
    private final Recorder recorder;
    private final Clock clock;
    private final Live live;

    NotesController(
            Destinations destinations, Stage stage, Takeover takeover, Recorder recorder, Clock clock, Live live) {
        this.destinations = destinations;
        this.stage = stage;
        this.takeover = takeover;
        this.recorder = recorder;
        this.clock = clock;
        this.live = live;
    }

    /** The place of the note is that of the moment at which it is begun, not that at which it is finished. */
    @GetMapping("/shows/{showId}/desk/note")
    String sheet(@PathVariable int showId, Model model) {
        PlaybackState state = destinations.now(showId);
        long now = clock.nanos();
        Optional<Playing> playing = state.playing();
        int item = playing.map(p -> p.item().item().id())
                .orElse(state.last().map(l -> l.cue().item().id()).orElse(0));
        long position = playing.filter(p -> p.item().times().isPresent())
                .map(p -> Math.max(0, p.position(now)))
                .orElse(-1L);
        model.addAttribute("showId", showId);
        model.addAttribute("at", recorder.at(now));
        model.addAttribute("item", item);
        model.addAttribute("cue", state.last().map(l -> l.cue().cueId()).orElse(0));
        model.addAttribute("position", position);
        model.addAttribute("where", where(state, playing, position));
        return "desk/note :: sheet";
    }

    private static String where(PlaybackState state, Optional<Playing> playing, long position) {
        String cue = state.last()
                .map(l -> "cue " + l.cue().label() + " " + l.cue().what())
                .orElse("the top of the show")
                .strip();
        String place = position < 0
                ? ""
                : playing.flatMap(p -> p.item().times())
                        .map(t -> {
                            var at = t.bars().position(t.tempi().tick(position));
                            return ", bar " + at.bar() + ":" + at.beat();
                        })
                        .orElse("");
        return cue + place;
    }

    @PostMapping("/shows/{showId}/desk/note")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void note(
            @PathVariable int showId,
            @RequestParam long at,
            @RequestParam int item,
            @RequestParam int cue,
            @RequestParam long position,
            @RequestParam String where,
            @RequestParam String words) {
        stage.performer(showId);
        String written = words.strip();
        if (written.isEmpty()) {
            throw new Refusal("words", "The note is empty; write a word, or leave with Esc.");
        }
        if (written.length() > LONGEST) {
            throw new Refusal(
                    "words", "A note has at most " + LONGEST + " characters; this has " + written.length() + ".");
        }
        recorder.note(showId, new Moment(at, Moment.Kind.NOTE, item, cue, position, where + ": " + written));
    }

    /** Keeps, from now on or no longer, each GO's place in the song as a proposal for the score. */
    @PostMapping("/shows/{showId}/desk/write-down")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void writeDown(@PathVariable int showId) {
        stage.performer(showId);
        recorder.writeDown(!recorder.writesDown());
        live.changed("desk");
    }

    @PostMapping("/shows/{showId}/desk/end-run")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@PathVariable int showId) {
        takeover.endRun(showId);
    }
}
