package underbaton.web.score;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.IntFunction;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Item;
import underbaton.core.cue.Placing;
import underbaton.core.cue.Show;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.music.Playing;
import underbaton.core.exchange.CueTable;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;
import underbaton.core.score.Section;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;
import underbaton.web.page.Pages;
import underbaton.web.record.WrittenDown;
import underbaton.web.stage.Stage;

/** The Score: one item in bars and beats, its cues as notes. Every change answers the sheet anew. */
@Controller
class ScoreController {

    private final Shows shows;
    private final Stage stage;
    private final Pages pages;
    private final Clock clock;
    private final ScoreSheet sheet;
    private final WrittenDown written;

    ScoreController(
            Shows shows, Stage stage, Pages pages, Clock clock, ScoreSheet sheet, Live live, WrittenDown written) {
        this.written = written;
        this.shows = shows;
        this.stage = stage;
        this.pages = pages;
        this.clock = clock;
        this.sheet = sheet;
        live.paints("playing", this::playing);
    }

    /**
     * Where the music is, as the pages read it: item, which planning of it, position in ms and the moment of that by our clock, whether
     * it moves, the vamp in words, and the time code that machines are given.
     */
    private String playing(int showId) {
        Optional<PlaybackState> state = stage.playback(showId);
        Optional<Playing> playing = state.flatMap(PlaybackState::playing);
        if (playing.isEmpty()) {
            return "{}";
        }
        Playing p = playing.get();
        String vamp = p.vamp()
                .map(v -> p.released() ? "vamp: leaving" : "vamp, time " + p.pass() + ": GO lets it go on")
                .orElse("");
        long now = clock.nanos();
        long from = p.vamp().map(v -> v.fromNanos() / 1_000_000).orElse(0L);
        long to = p.released() ? 0 : p.vamp().map(v -> v.toNanos() / 1_000_000).orElse(0L);
        return "{\"item\":%d,\"plan\":%d,\"at\":%d,\"when\":%d,\"paused\":%b,\"pace\":%d,\"vamp\":\"%s\",\"vampFrom\":%d,\"vampTo\":%d%s}"
                .formatted(
                        p.item().item().id(),
                        System.identityHashCode(p.item()),
                        p.position(now) / 1_000_000,
                        clock.epochMicrosAt(now) / 1000,
                        p.paused(),
                        p.anchor().permille(),
                        vamp,
                        from,
                        to,
                        code(state.get()));
    }

    /** The time code of the first machine that gets one: how many frames a second, the first of the item, and how far ahead, ms. */
    private static String code(PlaybackState state) {
        return state.plan().inStep().stream()
                .flatMap(d -> state.inStep().codeOf(d.id()).stream())
                .findFirst()
                .map(c -> ",\"code\":{\"rate\":\"%s\",\"first\":%d,\"ahead\":%d}"
                        .formatted(c.rate().words(), c.first(), c.aheadNanos() / 1_000_000))
                .orElse("");
    }

    @GetMapping("/shows/{showId}/score")
    String page(
            @PathVariable int showId,
            @RequestParam(defaultValue = "0") int item,
            @RequestParam(defaultValue = "8") int bars,
            Model model) {
        Show show = pages.open(showId, "Score", model);
        Optional<Item> chosen = item != 0
                ? show.item(item)
                : show.items().stream()
                        .filter(i -> i.score().isPresent())
                        .findFirst()
                        .or(() -> show.items().stream().findFirst());
        // In the place of one that is gone nothing is written into another.
        model.addAttribute("gone", item != 0 && chosen.isEmpty());
        model.addAttribute("chosen", chosen.orElse(null));
        chosen.ifPresent(i -> sheet.of(show, i.id(), new Seen(bars, null, null), model));
        return "score/score";
    }

    @GetMapping("/shows/{showId}/score/{itemId}/sheet")
    String sheet(@PathVariable int showId, @PathVariable int itemId, Seen seen, Model model) {
        return sheet.of(shows.get(showId), itemId, seen, model);
    }

    // ---- edits

    private String edit(int showId, int itemId, Seen seen, String what, Function<Show, Show> change, Model model) {
        Show changed = shows.edit(showId, what, s -> {
            // What cannot be drawn afterwards is not kept.
            ScoreSheet.item(s, itemId);
            return change.apply(s);
        });
        return sheet.of(changed, itemId, seen, model);
    }

    @PostMapping("/shows/{showId}/score/{itemId}/place")
    String place(
            @PathVariable int showId,
            @PathVariable int itemId,
            Seen seen,
            @RequestParam long tick,
            @RequestParam String department,
            @RequestParam String text,
            Model model) {
        Department line = Department.valueOf(department.toUpperCase(Locale.ROOT));
        return edit(showId, itemId, seen, "place a cue", s -> new Placing(s, itemId).place(tick, line, text), model);
    }

    @PostMapping("/shows/{showId}/score/{itemId}/write")
    String write(
            @PathVariable int showId,
            @PathVariable int itemId,
            Seen seen,
            @RequestParam int cue,
            @RequestParam int device,
            @RequestParam String text,
            @RequestParam(defaultValue = "") String was,
            Model model) {
        return edit(
                showId,
                itemId,
                seen,
                "change a cue",
                s -> {
                    Cue old = s.cue(cue).orElseThrow(() -> new Refusal("cue", "That cue is gone; reload the page."));
                    Device to = s.device(device).orElseThrow(() -> new Refusal("device", "That machine is gone."));
                    Fingerprint.requireMark(
                            was, CueTable.cell(old, to), "what cue " + old.number() + " says to " + to.name());
                    List<Call> calls =
                            Call.parts(text).stream().map(t -> Call.of(to, t)).toList();
                    return s.withCue(itemId, old.withCallsFor(device, calls));
                },
                model);
    }

    @PostMapping("/shows/{showId}/score/{itemId}/move")
    String move(
            @PathVariable int showId,
            @PathVariable int itemId,
            Seen seen,
            @RequestParam List<Integer> cues,
            @RequestParam(defaultValue = "0") int byBars,
            @RequestParam(defaultValue = "0") int byBeats,
            Model model) {
        return edit(showId, itemId, seen, "move cues", s -> new Placing(s, itemId).move(cues, byBars, byBeats), model);
    }

    @PostMapping("/shows/{showId}/score/{itemId}/copy")
    String copy(
            @PathVariable int showId,
            @PathVariable int itemId,
            Seen seen,
            @RequestParam List<Integer> cues,
            @RequestParam long tick,
            Model model) {
        return edit(showId, itemId, seen, "copy cues", s -> new Placing(s, itemId).copy(cues, tick), model);
    }

    @PostMapping("/shows/{showId}/score/{itemId}/delete")
    String delete(
            @PathVariable int showId,
            @PathVariable int itemId,
            Seen seen,
            @RequestParam List<Integer> cues,
            Model model) {
        return edit(
                showId,
                itemId,
                seen,
                cues.size() == 1 ? "delete a cue" : "delete " + cues.size() + " cues",
                s -> s.withoutCues(cues),
                model);
    }

    /** Takes what was written down: each of the cues comes at the beat at which its GO came. */
    @PostMapping("/shows/{showId}/score/{itemId}/take-down")
    String takeDown(
            @PathVariable int showId,
            @PathVariable int itemId,
            Seen seen,
            @RequestParam List<Integer> cues,
            Model model) {
        List<WrittenDown.Place> places = written.of(shows.get(showId), itemId).stream()
                .filter(p -> cues.contains(p.cueId()))
                .toList();
        shows.edit(showId, "take what was written down", s -> {
            ScoreSheet.item(s, itemId);
            Show changed = s;
            for (WrittenDown.Place place : places) {
                changed = new Placing(changed, itemId).stand(place.cueId(), place.tick());
            }
            return changed;
        });
        return forgetDown(showId, itemId, seen, cues, model);
    }

    @PostMapping("/shows/{showId}/score/{itemId}/forget-down")
    String forgetDown(
            @PathVariable int showId,
            @PathVariable int itemId,
            Seen seen,
            @RequestParam List<Integer> cues,
            Model model) {
        cues.forEach(c -> written.forget(showId, c));
        return sheet.of(shows.get(showId), itemId, seen, model);
    }

    /** Adds a section at a bar, or exchanges the one that begins there; without a letter it is taken away. */
    @PostMapping("/shows/{showId}/score/{itemId}/section")
    String section(
            @PathVariable int showId,
            @PathVariable int itemId,
            Seen seen,
            @RequestParam int bar,
            @RequestParam String letter,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "") String as,
            @RequestParam(defaultValue = "") String was,
            Model model) {
        Optional<String> again =
                as.isBlank() ? Optional.empty() : Optional.of(as.strip().toUpperCase(Locale.ROOT));
        return edit(
                showId,
                itemId,
                seen,
                letter.isBlank() ? "take a section away" : "write section " + letter,
                s -> {
                    Item item = ScoreSheet.item(s, itemId);
                    Score score = item.score().orElseGet(() -> Score.of(""));
                    List<Section> sections = new ArrayList<>(score.sections());
                    Optional<Section> before =
                            sections.stream().filter(x -> x.bar() == bar).findFirst();
                    Fingerprint.require(was, before, "the section at bar " + bar);
                    List<String> without = before.map(Section::without).orElse(List.of());
                    sections.removeIf(x -> x.bar() == bar);
                    if (!letter.isBlank()) {
                        String capital = letter.strip().toUpperCase(Locale.ROOT);
                        sections.add(new Section(bar, capital, name, again, again.isEmpty() ? List.of() : without));
                    }
                    return s.withItem(item.withScore(Optional.of(score.withSections(sections))), 0);
                },
                model);
    }

    @PostMapping("/shows/{showId}/score/{itemId}/text")
    String text(
            @PathVariable int showId,
            @PathVariable int itemId,
            Seen seen,
            @RequestParam String score,
            @RequestParam(required = false) String was,
            Model model) {
        Optional<Score> read = score.isBlank() ? Optional.empty() : Optional.of(Score.of(score));
        return edit(
                showId,
                itemId,
                seen,
                "change the score",
                s -> {
                    Item item = ScoreSheet.item(s, itemId);
                    String now = item.score().map(Score::toString).orElse("");
                    // Browsers send line ends their own way.
                    if (was != null && !was.strip().replace("\r\n", "\n").equals(now)) {
                        throw new Refusal(
                                "score",
                                "Somebody changed this score while its words were open, so they were not kept. Copy them, "
                                        + "leave, and look at what is there now.");
                    }
                    return s.withItem(item.withScore(read), 0);
                },
                model);
    }

    @PostMapping("/shows/{showId}/score/{itemId}/undo")
    String undo(@PathVariable int showId, @PathVariable int itemId, Seen seen, Model model) {
        return stepped(showId, itemId, seen, shows::undone, model);
    }

    @PostMapping("/shows/{showId}/score/{itemId}/redo")
    String redo(@PathVariable int showId, @PathVariable int itemId, Seen seen, Model model) {
        return stepped(showId, itemId, seen, shows::redone, model);
    }

    private String stepped(int showId, int itemId, Seen seen, IntFunction<String> step, Model model) {
        ScoreSheet.item(shows.get(showId), itemId);
        String done = step.apply(showId);
        if (shows.get(showId).item(itemId).isEmpty()) {
            throw new Refusal("item", done + " With it this item has left the book; choose another page.");
        }
        model.addAttribute("done", done);
        return sheet.of(shows.get(showId), itemId, seen, model);
    }

    /** The copy of a cue in a linked section is left out there, or comes back. */
    @PostMapping("/shows/{showId}/score/{itemId}/except")
    String except(
            @PathVariable int showId,
            @PathVariable int itemId,
            Seen seen,
            @RequestParam String letter,
            @RequestParam int cue,
            Model model) {
        return edit(
                showId,
                itemId,
                seen,
                "make an exception in " + letter,
                s -> new Placing(s, itemId).except(letter, cue),
                model);
    }

    // ---- playing

    /** Plays from a tick on; where the item plays already, it goes there. */
    @PostMapping("/shows/{showId}/score/{itemId}/play")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void play(@PathVariable int showId, @PathVariable int itemId, @RequestParam(defaultValue = "0") long tick) {
        Item item = ScoreSheet.item(shows.get(showId), itemId);
        long nanos =
                item.score().map(s -> s.read().tempi().nanos(Math.max(0, tick))).orElse(0L);
        stage.order(showId, "play " + item.name(), new Order.Play(itemId, nanos));
    }

    @PostMapping("/shows/{showId}/score/pause")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void pause(@PathVariable int showId) {
        stage.order(showId, "pause, or on", new Order.PauseOrGoOn());
    }

    /** @param ms later, below 0 earlier, against the performers */
    @PostMapping("/shows/{showId}/score/nudge")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void nudge(@PathVariable int showId, @RequestParam int ms) {
        stage.order(
                showId, "nudge by " + ms + " ms", new Order.Nudge(-Math.max(-2000, Math.min(2000, ms)) * 1_000_000L));
    }

    @PostMapping("/shows/{showId}/score/release")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void release(@PathVariable int showId) {
        stage.order(showId, "leave the vamp", new Order.Release());
    }
}
