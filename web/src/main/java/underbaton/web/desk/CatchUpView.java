package underbaton.web.desk;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.stream.Collectors;
import underbaton.core.cue.Show;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;

/**
 * What it takes to make the machines right, as the sheet shows it.
 *
 * @param to where they are brought, as {@link Destinations} calls it
 * @param groups by department, in the order of the rig
 * @param cannot what nothing can make right from here
 */
public record CatchUpView(Show show, String to, String words, List<Group> groups, List<Line> cannot) {

    public record Group(Department department, List<Line> lines) {}

    /** @param key names the line when the sheet is sent */
    public record Line(String key, Device device, Correction correction) {

        /** What the machine does now, as far as it was told. */
        public String has() {
            return correction.has().isEmpty() ? "not known" : "currently " + correction.has();
        }
    }

    /** The keys of all that can be made right, as the sheet showed them. */
    public String shown() {
        return groups.stream().flatMap(g -> g.lines.stream()).map(Line::key).collect(Collectors.joining("."));
    }

    public int count() {
        return groups.stream().mapToInt(g -> g.lines.size()).sum();
    }

    /** {@code 7 states differ from the book, just before cue 70}. */
    public String title() {
        return switch (count()) {
            case 0 -> "All machines are as the book says " + words;
            case 1 -> "1 state differs from the book, " + words;
            default -> count() + " states differ from the book, " + words;
        };
    }

    static CatchUpView of(Show show, String to, String words, List<Correction> corrections) {
        List<Group> groups = new ArrayList<>();
        List<Line> cannot = new ArrayList<>();
        for (Correction correction : corrections) {
            Device device = show.device(correction.key().deviceId()).orElse(null);
            if (device == null) {
                continue;
            }
            Line line = new Line(key(correction.key()), device, correction);
            if (!correction.isPossible()) {
                cannot.add(line);
                continue;
            }
            Group group = groups.stream()
                    .filter(g -> g.department == device.department())
                    .findFirst()
                    .orElseGet(() -> {
                        groups.add(new Group(device.department(), new ArrayList<>()));
                        return groups.get(groups.size() - 1);
                    });
            group.lines.add(line);
        }
        return new CatchUpView(show, to, words, groups, cannot);
    }

    /** In letters that no form trims, splits or writes otherwise. */
    static String key(Correction.Key key) {
        String words = key.deviceId() + " " + key.kind() + " " + key.name();
        return Base64.getUrlEncoder().withoutPadding().encodeToString(words.getBytes(StandardCharsets.UTF_8));
    }
}
