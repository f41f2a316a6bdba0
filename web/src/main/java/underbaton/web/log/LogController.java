package underbaton.web.log;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Controller;
import org.springframework.transaction.TransactionException;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.midi.Bytes;
import underbaton.core.traffic.Entry;
import underbaton.core.traffic.Traffic;
import underbaton.web.live.Live;
import underbaton.web.page.Pages;
import underbaton.web.record.Journal;
import underbaton.web.record.TrafficMapper;

/** The Log: the wire as bytes with times. */
@Controller
class LogController {

    private static final int MOST_ROWS = 400;
    private static final int CONTROL_CHANGE = 0xB0;
    private static final String TROUBLE = "trouble";
    /** A note as it is typed, in small letters; one that could be two bytes is left as it is. */
    private static final Pattern SHARP = Pattern.compile("\\b([a-g])(#|b(?=-)|)(-?\\d)(?![\\da-f])");

    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("HH:mm:ss.SSSSSS").withZone(ZoneId.systemDefault());

    private final Traffic traffic;
    private final Journal journal;
    private final Pages pages;

    /**
     * One line as the page prints it.
     *
     * @param move what the steps of one move have in common: machine, cause and control; empty for anything else
     */
    public record Line(Entry entry, String time, String bytes, String move) {
        static Line of(Entry entry) {
            Instant at = Instant.EPOCH.plus(entry.epochMicros(), ChronoUnit.MICROS);
            return new Line(entry, TIME.format(at), entry.bytes().hex(), move(entry));
        }

        /** How it is drawn. */
        public String kind() {
            return (entry.trouble().isEmpty() ? "" : "lost ")
                    + entry.direction().name().toLowerCase(Locale.ROOT);
        }

        /** How late it left; empty where nothing did. */
        public String late() {
            return entry.direction() == Entry.Direction.OUT && entry.trouble().isEmpty()
                    ? String.format(Locale.ROOT, "%.2f ms", entry.lateMicros() / 1000.0)
                    : "";
        }

        private static String move(Entry entry) {
            boolean sent =
                    entry.direction() == Entry.Direction.OUT && !entry.cause().isEmpty();
            String control = sent ? control(entry.bytes()) : "";
            return control.isEmpty() ? "" : entry.deviceId() + " " + entry.cause() + " " + control;
        }

        /** A control change by its channel and number, an OSC message by its address. */
        private static String control(Bytes bytes) {
            if (bytes.length() == 3 && (bytes.at(0) & 0xF0) == CONTROL_CHANGE) {
                return bytes.at(0) + " " + bytes.at(1);
            }
            if (bytes.length() == 0 || bytes.at(0) != '/') {
                return "";
            }
            StringBuilder address = new StringBuilder();
            for (int i = 0; i < bytes.length() && bytes.at(i) > ' '; i++) {
                address.append((char) bytes.at(i));
            }
            return address.toString();
        }
    }

    LogController(Traffic traffic, Journal journal, Pages pages, Live live) {
        this.traffic = traffic;
        this.journal = journal;
        this.pages = pages;
        live.paints("log", showId -> Long.toString(traffic.last()));
        traffic.watch(() -> live.changed("log"));
    }

    @GetMapping("/shows/{showId}/log")
    String page(@PathVariable int showId, Model model) {
        pages.open(showId, "Log", model);
        rows(showId, 0, 0, 0, "", "", model);
        return "log/log";
    }

    /**
     * Lines that fit the filters, newest first: those after a number, from memory; or those before one, from the database,
     * as are the first ones where memory has few.
     */
    @GetMapping("/shows/{showId}/log/rows")
    String rows(
            @PathVariable int showId,
            @RequestParam(defaultValue = "0") long after,
            @RequestParam(defaultValue = "0") long before,
            @RequestParam(defaultValue = "0") int device,
            @RequestParam(defaultValue = "") String direction,
            @RequestParam(defaultValue = "") String text,
            Model model) {
        String wanted = asPrinted(text.strip().toLowerCase(Locale.ROOT));
        List<Line> lines = new ArrayList<>();
        if (before == 0) {
            traffic.after(after, Integer.MAX_VALUE).stream()
                    .filter(e -> e.showId() == showId)
                    .filter(e -> device == 0 || e.deviceId() == device)
                    .filter(e -> direction.isEmpty()
                            || direction.equals(TROUBLE) && !e.trouble().isEmpty()
                            || e.direction().name().equalsIgnoreCase(direction))
                    .map(Line::of)
                    .filter(l -> wanted.isEmpty() || says(l, wanted))
                    .sorted((a, b) -> Long.compare(b.entry().number(), a.entry().number()))
                    .limit(MOST_ROWS)
                    .forEach(lines::add);
        }
        if (after == 0 && lines.size() < MOST_ROWS) {
            long oldest = lines.isEmpty()
                    ? Long.MAX_VALUE
                    : lines.get(lines.size() - 1).entry().number();
            List<Entry> older = older(showId, before == 0 ? oldest : before, device, direction, wanted, lines.size());
            older.forEach(e -> lines.add(Line.of(e)));
        }
        boolean more = lines.size() >= MOST_ROWS;
        model.addAttribute("lines", lines);
        model.addAttribute("more", more && after == 0);
        model.addAttribute("last", traffic.last());
        return "log/log :: rows";
    }

    /** Notes are printed with signs that no keyboard has: {@code c#1} finds C♯1, {@code eb-1} finds E♭−1. */
    private static String asPrinted(String typed) {
        return SHARP.matcher(typed)
                .replaceAll(m -> m.group(1)
                        + (m.group(2).equals("#") ? "♯" : m.group(2).equals("b") ? "♭" : "")
                        + m.group(3).replace('-', '−'));
    }

    /** Without the database, what memory has is shown alone. */
    private List<Entry> older(int showId, long before, int device, String direction, String text, int there) {
        boolean trouble = direction.equals(TROUBLE);
        String hex = text.replace(" ", "").matches("[0-9a-f]+")
                ? text.replace(" ", "").toUpperCase(Locale.ROOT)
                : "";
        try {
            return journal.older(new TrafficMapper.Wanted(
                    showId,
                    before,
                    device,
                    trouble ? "" : direction.toUpperCase(Locale.ROOT),
                    trouble,
                    text,
                    hex,
                    MOST_ROWS - there));
        } catch (DataAccessException | TransactionException away) {
            return List.of();
        }
    }

    private static boolean says(Line line, String wanted) {
        Entry e = line.entry();
        return (e.device() + " " + line.bytes() + " " + e.meaning() + " " + e.cause() + " " + e.trouble())
                .toLowerCase(Locale.ROOT)
                .contains(wanted);
    }
}
