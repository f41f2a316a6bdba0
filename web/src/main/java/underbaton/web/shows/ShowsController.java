package underbaton.web.shows;

import jakarta.servlet.http.HttpServletResponse;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.multipart.MultipartFile;
import underbaton.core.cue.Show;
import underbaton.core.engine.PlaybackState;
import underbaton.core.exchange.RigSwap;
import underbaton.core.rig.Department;
import underbaton.core.rig.Refusal;
import underbaton.core.store.ShowFile;
import underbaton.web.kernel.Alarms;
import underbaton.web.kernel.Download;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.kernel.Opened;
import underbaton.web.kernel.Reading;
import underbaton.web.library.Backups;
import underbaton.web.library.NoSuchShow;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/** The shelf of shows: files of them, backups, and what was deleted. */
@Controller
class ShowsController {

    private static final String OPENED = "shows/files :: opened";
    private static final String BACKUPS = "shows/files :: backups";

    /** A file belongs to no show yet. */
    private static final int NO_SHOW = 0;

    private final Reading reading;
    private final Shows shows;
    private final Stage stage;
    private final Backups backups;
    private final Alarms alarms;
    private final Opened<Show> opened = new Opened<>();

    ShowsController(Shows shows, Stage stage, Backups backups, Alarms alarms, Reading reading) {
        this.reading = reading;
        this.alarms = alarms;
        this.shows = shows;
        this.stage = stage;
        this.backups = backups;
    }

    /** A show that can be brought back, with its time for people. */
    record Gone(int id, String name, LocalDateTime at) {}

    @GetMapping("/")
    String page(Model model) {
        model.addAttribute("shows", shows.spines());
        model.addAttribute("departments", Department.values());
        model.addAttribute("alarms", alarms.now());
        model.addAttribute(
                "deleted",
                shows.deleted().stream()
                        .map(d -> new Gone(d.id(), d.name(), local(d.millis())))
                        .toList());
        model.addAttribute("openId", stage.openShow().map(Show::id).orElse(0));
        model.addAttribute("running", running().orElse(null));
        return "shows/shows";
    }

    private static LocalDateTime local(long millis) {
        return LocalDateTime.ofInstant(Instant.ofEpochMilli(millis), ZoneId.systemDefault());
    }

    /** What the show on the desk is in the middle of, if it is. */
    private Optional<String> running() {
        return stage.openShow()
                .filter(s -> stage.isRunning(s.id()))
                .map(s -> s.name() + " is running on the desk"
                        + stage.playback(s.id())
                                .flatMap(PlaybackState::last)
                                .map(f -> ", at cue " + f.cue().number() + ".")
                                .orElse("."));
    }

    /** Answers with where to go: another page has other styles and scripts, so it must be opened, not swapped in. */
    @PostMapping("/shows")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void create(@RequestParam String name, HttpServletResponse response) {
        int id = shows.create(name).id();
        // What is on the desk stays there; the new one is written beside it.
        if (stage.openShow().isEmpty()) {
            stage.open(id);
        }
        response.setHeader("HX-Redirect", "/shows/" + id + "/rig");
    }

    @PostMapping("/shows/{showId}/open")
    String open(@PathVariable int showId, @RequestParam(defaultValue = "book") String then) {
        stage.open(showId);
        return "redirect:/shows/" + showId + "/" + (then.matches("[a-z]+") ? then : "book");
    }

    @PostMapping("/shows/{showId}/rename")
    String rename(@PathVariable int showId, @RequestParam String name, @RequestParam(defaultValue = "") String was) {
        Fingerprint.requireMark(was, shows.get(showId).name(), "the name of this show");
        shows.rename(showId, name);
        return "redirect:/";
    }

    @PostMapping("/shows/{showId}/delete")
    String delete(@PathVariable int showId, @RequestParam(defaultValue = "false") boolean stops) {
        if (!stops && stage.isRunning(showId)) {
            throw new Refusal(
                    "show",
                    running().orElse("It is running.")
                            + " End its run on the Desk first, or delete it on the page Shows, where that is asked.");
        }
        if (stage.isOpen(showId)) {
            stage.putAway();
            stage.close();
        }
        shows.delete(showId);
        return "redirect:/";
    }

    @PostMapping("/shows/{showId}/bring-back")
    String bringBack(@PathVariable int showId) {
        shows.bringBack(showId);
        return "redirect:/";
    }

    // ---- files

    @GetMapping("/shows/{showId}/show.json")
    ResponseEntity<byte[]> file(@PathVariable int showId) {
        Show show = shows.get(showId);
        return Download.of(show.name() + ".json", Download.JSON, ShowFile.write(show));
    }

    /** All that there is of a show that cannot be read. */
    @GetMapping("/shows/{showId}/raw.txt")
    ResponseEntity<byte[]> raw(@PathVariable int showId) {
        return Download.of("show " + showId + " as it is.txt", "text/plain;charset=UTF-8", shows.raw(showId));
    }

    /** Shows what a file holds, before it is taken in. */
    @PostMapping("/shows/file")
    String openFile(@RequestParam MultipartFile file, Model model) {
        return opened(opened.put(NO_SHOW, reading.of(file, ShowFile.LARGEST, b -> ShowFile.read(0, b))), 0, model);
    }

    /** The same again, with its machines pointed at another rig. */
    @GetMapping("/shows/file/{number}")
    String openFile(@PathVariable long number, @RequestParam(defaultValue = "0") int rig, Model model) {
        return opened(new Opened.Waiting<>(number, opened.get(NO_SHOW, number)), rig, model);
    }

    private String opened(Opened.Waiting<Show> file, int rig, Model model) {
        model.addAttribute("number", file.number());
        model.addAttribute("read", file.content());
        model.addAttribute("name", shows.freeName(file.content().name()));
        model.addAttribute("rigs", shows.all());
        model.addAttribute("rig", rig);
        model.addAttribute("swap", rig == 0 ? null : new RigSwap(shows.get(rig)));
        return OPENED;
    }

    @PostMapping("/shows/file/{number}/take")
    String take(@PathVariable long number, @RequestParam String name, @RequestParam(defaultValue = "0") int rig) {
        Show read = opened.get(NO_SHOW, number);
        Show pointed = rig == 0 ? read : new RigSwap(shows.get(rig)).applied(read);
        shows.create(name, s -> s.withContentFrom(pointed));
        opened.done(NO_SHOW, number);
        return "redirect:/";
    }

    // ---- backups

    @GetMapping("/shows/{showId}/backups")
    String backups(@PathVariable int showId, Model model) {
        model.addAttribute(
                "spine",
                shows.spines().stream()
                        .filter(s -> s.id() == showId)
                        .findFirst()
                        .orElseThrow(NoSuchShow::new));
        model.addAttribute("backups", backups.of(showId));
        return BACKUPS;
    }

    @GetMapping("/shows/{showId}/backup.json")
    ResponseEntity<byte[]> backup(@PathVariable int showId, @RequestParam String file) {
        return Download.of(file, Download.JSON, backups.content(showId, file));
    }

    /** Gives the show the content of a backup; what it is now is kept as one, and undo takes it back. */
    @PostMapping("/shows/{showId}/backup")
    String bringBack(@PathVariable int showId, @RequestParam String file) {
        Show read = ShowFile.read(showId, backups.content(showId, file));
        Optional<Show> now = shows.find(showId);
        if (now.isPresent()) {
            backups.keep(now.get());
            shows.edit(showId, "bring back the backup " + file.replace(".json", ""), s -> s.withContentBackFrom(read));
        } else {
            backups.keepRaw(showId, shows.raw(showId));
            shows.replaceUnreadable(showId, read);
        }
        return "redirect:/";
    }
}
