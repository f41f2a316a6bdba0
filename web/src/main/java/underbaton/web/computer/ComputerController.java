package underbaton.web.computer;

import java.io.IOException;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.context.ApplicationContext;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.cue.Show;
import underbaton.core.loop.Clock;
import underbaton.web.access.Guests;
import underbaton.web.access.VenueDoor;
import underbaton.web.kernel.Alarms;
import underbaton.web.kernel.Settings;
import underbaton.web.library.Backups;
import underbaton.web.library.SecondPlace;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;

/** What runs on this computer, and where its backups lie. */
@Controller
class ComputerController {

    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("EEE d MMM, HH:mm", Locale.ENGLISH).withZone(ZoneId.systemDefault());
    private static final long GIGA = 1_000_000_000L;
    private static final long MEGA = 1_000_000L;

    private final Alarms alarms;
    private final Settings settings;
    private final Shows shows;
    private final Stage stage;
    private final Backups backups;
    private final SecondPlace second;
    private final VenueDoor door;
    private final Guests guests;
    private final Clock clock;
    private final Instant since;

    ComputerController(
            Alarms alarms,
            Settings settings,
            Shows shows,
            Stage stage,
            Backups backups,
            SecondPlace second,
            VenueDoor door,
            Guests guests,
            Clock clock,
            ApplicationContext context) {
        this.alarms = alarms;
        this.settings = settings;
        this.shows = shows;
        this.stage = stage;
        this.backups = backups;
        this.second = second;
        this.door = door;
        this.guests = guests;
        this.clock = clock;
        since = Instant.ofEpochMilli(context.getStartupDate());
    }

    /** @param what in a word or two; @param is how it is */
    record Fact(String what, String is) {}

    @GetMapping("/computer")
    String page(Model model) {
        model.addAttribute("alarms", alarms.now());
        model.addAttribute("facts", facts());
        model.addAttribute("second", second.state().orElse(null));
        model.addAttribute(
                "copied",
                second.state()
                        .filter(s -> s.copiedMs() > 0)
                        .map(s -> time(s.copiedMs()))
                        .orElse(""));
        return "computer/computer";
    }

    @PostMapping("/computer/second-place")
    String secondPlace(@RequestParam String folder) {
        second.beAt(folder);
        return "redirect:/computer";
    }

    private List<Fact> facts() {
        List<Fact> facts = new ArrayList<>();
        facts.add(new Fact("Version", version()));
        facts.add(new Fact(
                "Runs",
                "since " + TIME.format(since) + ", " + lasted() + ", "
                        + (settings.service() ? "as a service of this computer" : "started by hand")));
        facts.add(new Fact("On the desk", stage.openShow().map(Show::name).orElse("no show")));
        facts.add(new Fact("Database", alarms.databaseAnswers() ? "answers" : "does not answer"));
        facts.add(new Fact("Disk", disk()));
        facts.add(new Fact("Memory", memory()));
        facts.add(new Fact("Last backup", lastBackup()));
        facts.add(new Fact(
                "The venue’s door",
                door.open()
                        .map(o -> "open at " + o.url() + ", " + guests.all().size() + " let in")
                        .orElse("shut")));
        return facts;
    }

    /** As the jar says; of classes alone nobody has counted. */
    private static String version() {
        return Optional.ofNullable(ComputerController.class.getPackage().getImplementationVersion())
                        .orElse("not built into a release")
                + ", Java " + Runtime.version().feature();
    }

    private String lasted() {
        Duration d = Duration.ofMillis(Math.max(0, clock.epochMicros() / 1000 - since.toEpochMilli()));
        return d.toDays() > 0
                ? d.toDays() + " d " + d.toHoursPart() + " h"
                : d.toHours() + " h " + d.toMinutesPart() + " min";
    }

    private String disk() {
        try {
            FileStore store = Files.getFileStore(Files.createDirectories(settings.data()));
            return "%.1f GB of %.1f GB free"
                    .formatted((double) store.getUsableSpace() / GIGA, (double) store.getTotalSpace() / GIGA);
        } catch (IOException unreadable) {
            return "cannot be read: " + unreadable.getMessage();
        }
    }

    private static String memory() {
        Runtime here = Runtime.getRuntime();
        return "%d MB of %d MB used"
                .formatted((here.totalMemory() - here.freeMemory()) / MEGA, here.maxMemory() / MEGA);
    }

    private String lastBackup() {
        record Last(String name, Backups.Backup backup) {}
        return shows.all().stream()
                .flatMap(s -> backups.of(s.id()).stream().limit(1).map(b -> new Last(s.name(), b)))
                .max(Comparator.comparing(l -> l.backup.at().toInstant()))
                .map(l -> TIME.format(l.backup.at()) + ", " + l.name)
                .orElse("none yet; one is made when a show goes to the desk, and every ten minutes of work on it");
    }

    private static String time(long ms) {
        return TIME.format(Instant.ofEpochMilli(ms));
    }
}
