package underbaton.web.access;

import static java.util.Map.entry;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import org.springframework.http.server.PathContainer;
import org.springframework.web.util.pattern.PathPattern;
import org.springframework.web.util.pattern.PathPatternParser;
import underbaton.core.signal.Deed;

/**
 * What each address of a page, each order of a browser's line and each part that it draws comes to. What stands in no row is for nobody
 * but the operator's own computer.
 */
public final class Table {

    private record Row(String method, PathPattern path, Act act) {

        boolean isFor(String asked, PathContainer where) {
            return (method.equals("*") || method.equals(asked)) && path.matches(where);
        }
    }

    private static final PathPatternParser PARSER = new PathPatternParser();

    /** The first that fits is taken. */
    private static final List<Row> PATHS = List.of(
            // What every page is dressed with, and the door.
            row("GET /{mark:[0-9a-f]{16}}/**", Act.COME_IN),
            row("GET /css/**", Act.COME_IN),
            row("GET /js/**", Act.COME_IN),
            row("GET /lib/**", Act.COME_IN),
            row("GET /fonts/**", Act.COME_IN),
            row("GET /webjars/**", Act.COME_IN),
            row("GET /icon*.*", Act.COME_IN),
            row("GET /app.webmanifest", Act.COME_IN),
            row("GET /{place:[a-z]+}/{file:[-a-z0-9]+}.css", Act.COME_IN),
            row("GET /{place:[a-z]+}/{file:[-a-z0-9]+}.js", Act.COME_IN),
            row("* /error", Act.COME_IN),
            row("GET /come-in", Act.COME_IN),
            row("GET /come-in/**", Act.COME_IN),
            row("POST /come-in/**", Act.COME_IN),
            row("GET /live", Act.VIEW),
            row("GET /start", Act.VIEW),
            row("GET /call", Act.CALL),
            row("GET /hands", Act.TOUCH),
            row("GET /view", Act.VIEW),
            row("GET /view/*", Act.VIEW),
            row("GET /shows/{show}/desk/beats", Act.VIEW),
            row("POST /leave", Act.VIEW),
            row("GET /venue/**", Act.RUN),
            row("POST /venue/**", Act.RUN),
            row("GET /computer", Act.RUN),
            row("POST /computer/**", Act.RUN),
            // What is done in a running show.
            row("GET /shows/{show}/hands", Act.VIEW),
            row("GET /shows/{show}/hands/body", Act.VIEW),
            row("POST /shows/{show}/hands/keys/{key}/touch", Act.TOUCH),
            row("GET /shows/{show}/desk/note", Act.CALL),
            row("POST /shows/{show}/desk/note", Act.CALL),
            row("POST /shows/{show}/desk/jump", Act.CALL),
            row("POST /shows/{show}/desk/seen", Act.CALL),
            row("POST /shows/{show}/score/pause", Act.CALL),
            row("POST /shows/{show}/score/release", Act.CALL),
            row("POST /shows/{show}/score/nudge", Act.CALL),
            row("POST /shows/{show}/score/{item}/play", Act.CALL),
            row("POST /shows/{show}/desk/**", Act.RUN),
            row("POST /shows/{show}/signals/{listener}/arm", Act.RUN),
            row("POST /shows/{show}/book/cues/{cue}/fire", Act.RUN),
            row("POST /shows/{show}/rig/devices/{device}/phrases/{phrase}/fire", Act.RUN),
            row("POST /shows/{show}/rig/devices/{device}/list/move", Act.WRITE),
            row("POST /shows/{show}/rig/door", Act.RUN),
            row("POST /shows/{show}/patch/hush", Act.RUN),
            row("POST /shows/{show}/patch/{set}/load", Act.RUN),
            row("POST /shows/{show}/patch/{set}/put-back", Act.RUN),
            row("POST /shows/{show}/linecheck/**", Act.RUN),
            row("POST /shows/{show}/room/**", Act.RUN),
            row("POST /shows/{show}/performances/**", Act.RUN),
            // What is written.
            row("POST /shows/{show}/book/**", Act.WRITE),
            row("POST /shows/{show}/rig/**", Act.WRITE),
            row("POST /shows/{show}/score/**", Act.WRITE),
            row("POST /shows/{show}/signals", Act.WRITE),
            row("POST /shows/{show}/signals/**", Act.WRITE),
            row("POST /shows/{show}/patch", Act.WRITE),
            row("POST /shows/{show}/patch/**", Act.WRITE),
            row("POST /shows/{show}/hands/**", Act.WRITE),
            row("POST /shows/{show}/steps/**", Act.WRITE),
            // The shelf.
            row("POST /shows", Act.RUN),
            row("POST /shows/**", Act.RUN),
            row("GET /shows/file/**", Act.RUN),
            row("GET /shows/{show}/backup.json", Act.RUN),
            row("GET /shows/{show}/raw.txt", Act.RUN),
            row("GET /", Act.READ),
            row("GET /shows/**", Act.READ));

    /** Over a browser's line, beside those of the Desk. */
    private static final Map<String, Act> ORDERS = Map.of("touch", Act.TOUCH, "hold", Act.TOUCH, "let", Act.TOUCH);

    private static final Pattern OF_A_KEY = Pattern.compile("(touch|hold|let) \\d+");

    /** What a browser's line draws. */
    private static final Map<String, Act> PARTS = Map.ofEntries(
            entry("alarms", Act.VIEW),
            entry("hands", Act.VIEW),
            entry("keys", Act.VIEW),
            entry("armed", Act.VIEW),
            entry("view", Act.VIEW),
            entry("playing", Act.VIEW),
            entry("desk", Act.READ),
            entry("waiting", Act.READ),
            entry("steps", Act.READ),
            entry("lamps", Act.READ),
            entry("lamp-lines", Act.READ),
            entry("listeners", Act.READ),
            entry("arrivals", Act.READ),
            entry("book", Act.READ),
            entry("log", Act.READ),
            entry("machines", Act.READ),
            entry("patch", Act.READ),
            entry("found", Act.READ),
            entry("room", Act.READ),
            entry("came", Act.READ),
            entry("venue", Act.RUN));

    private Table() {}

    private static Row row(String where, Act act) {
        String[] parts = where.split(" ");
        return new Row(parts[0], PARSER.parse(parts[1]), act);
    }

    /** What a request comes to; empty for one that stands in no row. */
    public static Optional<Act> ofRequest(String method, String path) {
        PathContainer where = PathContainer.parsePath(path);
        String asked = method.equals("HEAD") ? "GET" : method;
        if (asked.equals("POST") && path.matches("/shows/\\d+/desk/[a-z]+")) {
            Optional<Deed> deed = Deed.of(path.substring(path.lastIndexOf('/') + 1));
            if (deed.isPresent()) {
                return Optional.of(Act.CALL);
            }
        }
        return PATHS.stream().filter(r -> r.isFor(asked, where)).map(Row::act).findFirst();
    }

    /** What an order over a browser's line comes to; empty for one that stands in no row. */
    public static Optional<Act> ofOrder(String said) {
        if (Deed.of(said).isPresent()) {
            return Optional.of(Act.CALL);
        }
        return OF_A_KEY.matcher(said).matches()
                ? Optional.of(ORDERS.get(said.substring(0, said.indexOf(' '))))
                : Optional.empty();
    }

    /** What a part that is drawn over a browser's line comes to; empty for one that stands in no row. */
    public static Optional<Act> ofPart(String topic) {
        return Optional.ofNullable(PARTS.get(topic.replaceFirst(":.*", "")));
    }
}
