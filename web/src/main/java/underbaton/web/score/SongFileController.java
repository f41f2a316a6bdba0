package underbaton.web.score;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import underbaton.core.cue.CodeStart;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.exchange.MidiFile;
import underbaton.core.exchange.Offer;
import underbaton.core.exchange.PlanFile;
import underbaton.core.exchange.Song;
import underbaton.core.midi.TimeCode;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Cut;
import underbaton.core.rig.Refusal;
import underbaton.web.kernel.Download;
import underbaton.web.kernel.Opened;
import underbaton.web.kernel.Reading;
import underbaton.web.library.Plans;
import underbaton.web.library.Shows;

/** Songs as Standard MIDI Files, out and in: what is opened is first offered, with what its parts would call. */
@Controller
class SongFileController {

    private static final String OFFER = "score/files :: offer";

    private final Reading reading;
    private final Shows shows;
    private final Plans plans;
    private final Opened<SongFile> opened = new Opened<>();

    private record SongFile(String fileName, Song song) {}

    SongFileController(Shows shows, Plans plans, Reading reading) {
        this.reading = reading;
        this.shows = shows;
        this.plans = plans;
    }

    @GetMapping("/shows/{showId}/score/files")
    String files(@PathVariable int showId, @RequestParam int item, Model model) {
        Show show = shows.get(showId);
        Optional<PlannedItem> planned = plans.of(show).item(item);
        model.addAttribute("show", show);
        model.addAttribute("chosen", planned.map(PlannedItem::item).orElse(null));
        model.addAttribute("codeStart", CodeStart.tell(plans.of(show).codeStart(item)));
        model.addAttribute("frameRates", TimeCode.Rate.values());
        model.addAttribute(
                "left",
                planned.map(p -> PlanFile.left(plans.dryRun(show), item)).orElse(List.of()));
        return "score/files :: files";
    }

    @GetMapping("/shows/{showId}/score/{itemId}/song.mid")
    ResponseEntity<byte[]> save(@PathVariable int showId, @PathVariable int itemId) {
        Show show = shows.get(showId);
        Item item = ScoreSheet.item(show, itemId);
        return Download.of(
                item.name() + ".mid",
                Download.MIDI,
                PlanFile.write(plans.dryRun(show), itemId).write());
    }

    @PostMapping("/shows/{showId}/score/files")
    String open(@PathVariable int showId, @RequestParam MultipartFile file, Model model) {
        if (file.isEmpty()) {
            throw new Refusal("file", "Choose a MIDI file first.");
        }
        Song song = reading.of(file, MidiFile.LARGEST, b -> Song.read(MidiFile.read(b)));
        String fileName = Optional.ofNullable(file.getOriginalFilename()).orElse("");
        Opened.Waiting<SongFile> now = opened.put(showId, new SongFile(fileName, song));
        return offer(shows.get(showId), now.number(), song, Map.of(), name(now.content()), model);
    }

    private static String name(SongFile opened) {
        String name = opened.song.name().isEmpty()
                ? opened.fileName.replaceAll("(?i)\\.midi?$", "").strip()
                : opened.song.name();
        return Cut.to(100, name.isEmpty() ? "New song" : name);
    }

    /** The same song with its parts given to other machines. */
    @PostMapping("/shows/{showId}/score/offer")
    String offer(
            @PathVariable int showId,
            @RequestParam long number,
            @RequestParam String name,
            @RequestParam Map<String, String> fields,
            Model model) {
        return offer(shows.get(showId), number, opened.get(showId, number).song, chosen(fields), name, model);
    }

    private static String offer(
            Show show, long number, Song song, Map<Integer, Integer> chosen, String name, Model model) {
        model.addAttribute("show", show);
        model.addAttribute("offer", new Offer(song, show, chosen));
        model.addAttribute("machines", Offer.midi(show));
        model.addAttribute("number", number);
        model.addAttribute("name", name);
        return OFFER;
    }

    @PostMapping("/shows/{showId}/score/take")
    ResponseEntity<Void> take(
            @PathVariable int showId,
            @RequestParam long number,
            @RequestParam String name,
            @RequestParam Map<String, String> fields) {
        Song song = opened.get(showId, number).song;
        Show show = shows.edit(showId, "take in " + name, s -> new Offer(song, s, chosen(fields)).into(s, name));
        opened.done(showId, number);
        Item added = show.items().get(show.items().size() - 1);
        return ResponseEntity.noContent()
                .header("HX-Redirect", "/shows/" + showId + "/score?item=" + added.id())
                .header(HttpHeaders.CACHE_CONTROL, "no-store")
                .build();
    }

    /** Fields part0, part1… with the ids of machines, 0 for none. */
    private static Map<Integer, Integer> chosen(Map<String, String> fields) {
        Map<Integer, Integer> chosen = new HashMap<>();
        fields.forEach((key, value) -> {
            if (key.matches("part\\d{1,4}")) {
                chosen.put(Integer.valueOf(key.substring(4)), Integer.valueOf(value));
            }
        });
        return chosen;
    }
}
