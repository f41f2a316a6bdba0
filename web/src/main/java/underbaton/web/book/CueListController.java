package underbaton.web.book;

import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Renumbering;
import underbaton.core.cue.Show;
import underbaton.core.exchange.CueListChange;
import underbaton.core.exchange.CueTable;
import underbaton.core.exchange.Taken;
import underbaton.core.rig.Refusal;
import underbaton.web.kernel.Download;
import underbaton.web.kernel.Opened;
import underbaton.web.kernel.Reading;
import underbaton.web.library.Shows;

/** Cues by the row: copied and pasted, renumbered, and as a spreadsheet's table out and in. */
@Controller
class CueListController {

    private static final int MOST_SHOWN = 200;

    private final Reading reading;
    private final Shows shows;
    private final BookTable table;
    private final Opened<CueTable> opened = new Opened<>();

    CueListController(Shows shows, BookTable table, Reading reading) {
        this.reading = reading;
        this.shows = shows;
        this.table = table;
    }

    // ---- rows

    /** Cues as the clipboard gets them: any spreadsheet can take them, and any book of ours. */
    @GetMapping("/shows/{showId}/book/rows")
    ResponseEntity<byte[]> rows(@PathVariable int showId, Stretch stretch) {
        Show show = shows.get(showId);
        return text(CueTable.of(show, ids(stretch.cues(show))).tabbed());
    }

    /** What cells say, as spreadsheets put it onto the clipboard. */
    @GetMapping("/shows/{showId}/book/cells")
    ResponseEntity<byte[]> cells(@PathVariable int showId, Stretch stretch, @RequestParam List<String> columns) {
        Show show = shows.get(showId);
        List<CellText> cells = columns.stream().map(c -> new CellText(c, "")).toList();
        return text(stretch.cues(show).stream()
                .map(cue -> cells.stream().map(c -> c.standing(cue, show)).collect(Collectors.joining("\t")))
                .collect(Collectors.joining("\n")));
    }

    private static ResponseEntity<byte[]> text(String words) {
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("text/plain;charset=UTF-8"))
                .body(words.getBytes(StandardCharsets.UTF_8));
    }

    private static Set<Integer> ids(List<Cue> cues) {
        return cues.stream().map(Cue::id).collect(Collectors.toSet());
    }

    @PostMapping("/shows/{showId}/book/rows")
    String paste(
            @PathVariable int showId,
            @RequestParam int item,
            @RequestParam int after,
            @RequestParam String text,
            Shown shown,
            Model model) {
        CueTable rows = CueTable.read(text);
        Taken[] taken = new Taken[1];
        Show changed = shows.edit(showId, "paste cues", show -> {
            taken[0] = rows.into(show, item, after);
            return taken[0].show();
        });
        int first = changed.nextId() - taken[0].cues();
        return table.of(changed, shown, first, counted(taken[0].cues()) + " pasted.", taken[0].left(), model);
    }

    private static String counted(int cues) {
        return cues == 1 ? "One cue" : cues + " cues";
    }

    // ---- numbers

    /** What would come of it, of the first of them. */
    @GetMapping("/shows/{showId}/book/numbers")
    String numbers(
            @PathVariable int showId,
            Stretch stretch,
            @RequestParam String first,
            @RequestParam String step,
            Model model) {
        Show show = shows.get(showId);
        List<Cue> cues = stretch.cues(show);
        Map<Integer, CueNumber> numbers =
                renumbering(show, ids(cues), first, step).numbers();
        List<Renumbered> all = cues.stream()
                .map(c -> new Renumbered(c.number(), numbers.get(c.id()), c.what()))
                .toList();
        model.addAttribute("numbers", all.subList(0, Math.min(all.size(), MOST_SHOWN)));
        long changes = all.stream().filter(r -> !r.from.equals(r.to)).count();
        model.addAttribute(
                "change",
                changes == 0
                        ? "All of them have these numbers already."
                        : changes + " of " + all.size() + (changes == 1 ? " gets" : " get") + " another number:");
        return "book/lists :: numbers";
    }

    record Renumbered(CueNumber from, CueNumber to, String what) {}

    @PostMapping("/shows/{showId}/book/numbers")
    String renumber(
            @PathVariable int showId,
            @RequestParam List<Integer> cues,
            @RequestParam String first,
            @RequestParam String step,
            Shown shown,
            Model model) {
        Show changed = shows.edit(
                showId, "renumber", s -> renumbering(s, cues, first, step).into(s));
        return table.of(changed, shown, 0, counted(cues.size()) + " renumbered.", List.of(), model);
    }

    private static Renumbering renumbering(Show show, Collection<Integer> cues, String first, String step) {
        return Renumbering.of(show, cues, CueNumber.of(first), CueNumber.of(step));
    }

    // ---- the whole list

    @GetMapping("/shows/{showId}/book/cues.csv")
    ResponseEntity<byte[]> save(@PathVariable int showId) {
        Show show = shows.get(showId);
        // The mark before the text tells spreadsheets that it is UTF-8.
        return Download.of(
                show.name() + ", cues.csv",
                Download.CSV,
                "\uFEFF" + CueTable.of(show).csv());
    }

    @PostMapping("/shows/{showId}/book/list")
    String open(@PathVariable int showId, @RequestParam MultipartFile file, Model model) {
        CueTable read = reading.of(file, CueTable.LARGEST, CueTable::read);
        CueListChange change = CueListChange.of(shows.get(showId), read, false);
        model.addAttribute("number", opened.put(showId, read).number());
        model.addAttribute("change", change);
        model.addAttribute("show", shows.get(showId));
        return "book/lists :: change";
    }

    @PostMapping("/shows/{showId}/book/list/take")
    String take(
            @PathVariable int showId,
            @RequestParam long number,
            @RequestParam(defaultValue = "false") boolean complete,
            @RequestParam(defaultValue = "0") int seen,
            Shown shown,
            Model model) {
        CueTable read = opened.get(showId, number);
        CueListChange[] change = new CueListChange[1];
        Show changed = shows.edit(showId, "take in a cue list", show -> {
            if (seen != 0 && show.revision() != seen) {
                throw new Refusal(
                        "file",
                        "Somebody changed the show since you looked at this list; open the file once more and look at "
                                + "what changes.");
            }
            change[0] = CueListChange.of(show, read, complete);
            return change[0].show();
        });
        opened.done(showId, number);
        String done = counted(change[0].added()) + " added, " + change[0].changed() + " changed"
                + (complete ? ", " + change[0].absent().size() + " taken out." : ".");
        return table.of(changed, shown, 0, done, change[0].left(), model);
    }
}
