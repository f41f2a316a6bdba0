package underbaton.web.patch;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.engine.patch.Patched;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.PatchKind;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.PatchSet;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wiring;
import underbaton.core.store.StoredForm;
import underbaton.web.kernel.Fingerprint;

/** What the page Patch draws: the sets, and one of them as lines from staves to outputs and as a table. */
public final class PatchView {

    private static final int WIDTH = 900;
    private static final int LEFT = 140;
    private static final int TOP = 70;
    private static final int NARROWEST = 104;
    private static final int WIDEST = 190;
    private static final int ROW = 46;
    private static final int APART = 13;
    private static final int ROUND = 9;
    private static final int HEAD = 46;

    private final Show show;
    private final Patched patched;
    private final Phrase chosen;
    private final Wiring wiring;

    /**
     * A set in the list.
     *
     * @param number as the patch bay counts
     * @param state in words; empty for one that is neither in use nor edited
     * @param mark {@code in-use}, {@code in-use-not-kept}, {@code not-kept}, or nothing
     */
    public record SetRow(
            int id, String number, String name, boolean guarded, int lines, String state, String mark, String was) {}

    /** A mark of what the form of a set shows, which its lines do not stand in. */
    static String markOf(Phrase set) {
        return Fingerprint.of(List.of(set.name(), PatchBay.program(set), set.guarded()));
    }

    /** A line in the table. @param mark by which it is known @param number as people count @param copy what copying it takes along */
    public record LineRow(
            String mark,
            int number,
            String from,
            String fromChannel,
            String to,
            String toChannel,
            String passes,
            String copy) {}

    /** An input: a staff line. */
    public record Stave(int y, String name, Department department, boolean localOff) {}

    /** An output, at the head of its column. @param channel in words */
    public record Stem(int x, String name, String channel, Department department) {}

    /** A line as it is drawn. @param number of its row @param style which of four strokes */
    public record Drawn(int number, int style, String path, int x, int y, String label) {}

    /** The drawing. */
    public record Drawing(int width, int height, List<Stave> staves, List<Stem> stems, List<Drawn> lines) {}

    /** A keyboard, and whether its keys play its own sounds only through us. */
    public record Keyboard(int id, String name, boolean localOff) {}

    /** @param setId the set that is looked at; one that is not there is the one in use, or else the first */
    PatchView(Show show, Patched patched, int setId) {
        this.show = show;
        this.patched = patched;
        List<Phrase> sets = PatchBay.sets(show);
        // In the place of one that is gone nothing is written into another.
        int wanted = setId == 0 ? patched.setId() : setId;
        this.chosen = sets.stream()
                .filter(p -> p.id() == wanted)
                .findFirst()
                .or(() -> setId == 0 ? sets.stream().findFirst() : Optional.empty())
                .orElse(null);
        this.wiring =
                chosen == null ? Wiring.NONE : chosen.patch().orElseThrow().shown();
    }

    static boolean isPlayed(Device device) {
        return device.connection().carriesMidi() && !(device.connection() instanceof Connection.PatchBay);
    }

    /** The machines that can be played, or played into. */
    public List<Device> machines() {
        return show.devices().stream().filter(PatchView::isPlayed).toList();
    }

    public Optional<SetRow> chosen() {
        return Optional.ofNullable(chosen).map(this::row);
    }

    public List<SetRow> sets() {
        return PatchBay.sets(show).stream().map(this::row).toList();
    }

    private SetRow row(Phrase set) {
        PatchSet patch = set.patch().orElseThrow();
        String number = PatchBay.of(show).orElseThrow().numbering().program(PatchBay.program(set));
        boolean inUse = patched.setId() == set.id();
        boolean asKept = patched.wiring().equals(patch.kept());
        boolean edited = patch.draft().isPresent();
        String state = inUse
                ? asKept ? edited ? "in use as it is kept; edited beside it" : "in use" : "in use, not kept"
                : edited ? "edited, not kept" : "";
        String mark = inUse
                ? asKept && !edited ? "in-use" : asKept ? "in-use edited" : "in-use not-kept"
                : edited ? "not-kept" : "";
        return new SetRow(
                set.id(),
                number,
                set.name(),
                set.guarded(),
                patch.shown().lines().size(),
                state,
                mark,
                markOf(set));
    }

    /** Whether what is edited is heard. */
    public boolean isHeard() {
        return chosen != null
                && patched.setId() == chosen.id()
                && patched.wiring().equals(wiring);
    }

    public boolean isEdited() {
        return chosen != null && chosen.patch().orElseThrow().draft().isPresent();
    }

    public boolean isInUse() {
        return chosen != null && patched.setId() == chosen.id();
    }

    // ---- the table

    public List<LineRow> lines() {
        List<LineRow> rows = new ArrayList<>();
        for (int i = 0; i < wiring.lines().size(); i++) {
            PatchLine line = wiring.lines().get(i);
            LineForm typed = LineForm.of(show, line);
            rows.add(new LineRow(
                    typed.was(),
                    i + 1,
                    name(line.from()),
                    typed.fromChannel().isEmpty() ? "any" : typed.fromChannel(),
                    name(line.to()),
                    typed.toChannel().isEmpty() ? "as it comes" : typed.toChannel(),
                    passes(line, typed),
                    StoredForm.write(new CopiedLine("patch line", name(line.from()), name(line.to()), line))));
        }
        return rows;
    }

    /** A line as it goes through the clipboard: with the names of its machines, for a show in which they have other ids. */
    record CopiedLine(String kind, String from, String to, PatchLine line) {}

    private String name(int deviceId) {
        return show.device(deviceId).map(Device::name).orElse("a machine that is gone");
    }

    private static String passes(PatchLine line, LineForm typed) {
        List<String> words = new ArrayList<>();
        if (!line.kinds().equals(PatchKind.PLAYED)) {
            words.add(kinds(line.kinds()));
        }
        add(words, "notes ", typed.low(), typed.high());
        add(words, "velocity ", typed.soft(), typed.hard());
        add(words, "controls ", typed.firstControl(), typed.lastControl());
        add(words, "programs ", typed.firstProgram(), typed.lastProgram());
        if (line.transpose() != 0) {
            words.add(typed.transpose());
        }
        return words.isEmpty() ? "all that is played" : String.join("; ", words);
    }

    private static String kinds(Set<PatchKind> kinds) {
        boolean played = kinds.containsAll(PatchKind.PLAYED);
        return kinds.stream()
                .filter(k -> !played || !PatchKind.PLAYED.contains(k))
                .map(PatchKind::words)
                .collect(Collectors.joining(", ", played ? "also " : "", ""));
    }

    private static void add(List<String> words, String what, String from, String to) {
        if (!from.isEmpty()) {
            words.add(what + (from.equals(to) ? from : from + "–" + to));
        }
    }

    /** What a drawn line says of itself: where it is split, by how much it is moved. */
    private static String label(PatchLine line, LineForm typed) {
        List<String> words = new ArrayList<>();
        add(words, "", typed.low(), typed.high());
        add(words, "v ", typed.soft(), typed.hard());
        if (line.transpose() != 0) {
            words.add(typed.transpose());
        }
        if (!line.kinds().equals(PatchKind.PLAYED)) {
            boolean few = line.kinds().size() == 1 || line.kinds().containsAll(PatchKind.PLAYED);
            words.add(few ? kinds(line.kinds()) : line.kinds().size() + " kinds");
        }
        return String.join("  ", words);
    }

    // ---- keyboards

    /** Those that play something in any set, and those whose local control any set turns off. */
    public List<Keyboard> keyboards() {
        Set<Integer> ids = machines(true);
        return show.devices().stream()
                .filter(d -> ids.contains(d.id()))
                .map(d -> new Keyboard(d.id(), d.name(), wiring.localOff().contains(d.id())))
                .toList();
    }

    private Set<Integer> machines(boolean inputs) {
        Set<Integer> ids = new LinkedHashSet<>();
        for (Phrase set : PatchBay.sets(show)) {
            Wiring lines = set.patch().orElseThrow().shown();
            lines.lines().forEach(l -> ids.add(inputs ? l.from() : l.to()));
            if (inputs) {
                ids.addAll(lines.localOff());
            }
        }
        return ids;
    }

    // ---- the drawing

    /** An output: a machine on one of its channels; −1 for the one on which it came. */
    private record Outlet(int deviceId, int channel) {
        static Outlet of(PatchLine line) {
            return new Outlet(line.to(), line.toChannel().orElse(-1));
        }
    }

    /** Inputs are staves, outputs stand above their columns; a line runs along its staff, bends at its note head and rises. */
    public Drawing drawing() {
        Map<Integer, Integer> fromY = new HashMap<>();
        List<Stave> staves = new ArrayList<>();
        Set<Integer> inputs = machines(true);
        int y = TOP + ROW / 2;
        for (Device device : show.devices()) {
            if (inputs.contains(device.id())) {
                long own = wiring.lines().stream()
                        .filter(l -> l.from() == device.id())
                        .count();
                staves.add(new Stave(
                        y, device.name(), device.department(), wiring.localOff().contains(device.id())));
                fromY.put(device.id(), y);
                y += Math.max(ROW, (int) own * APART + ROW / 2);
            }
        }
        Map<Outlet, Integer> toX = new LinkedHashMap<>();
        List<Outlet> outlets = outlets();
        int column = Math.min(WIDEST, Math.max(NARROWEST, (WIDTH - LEFT) / Math.max(1, outlets.size())));
        int x = LEFT + column / 3;
        for (Outlet outlet : outlets) {
            toX.put(outlet, x);
            x += column;
        }
        List<Stem> stems = new ArrayList<>();
        toX.forEach((outlet, at) -> show.device(outlet.deviceId)
                .ifPresent(d -> stems.add(new Stem(
                        at,
                        d.name(),
                        outlet.channel < 0 ? "as it comes" : "channel " + Numbering.channel(outlet.channel),
                        d.department()))));
        return new Drawing(Math.max(WIDTH, x), y, staves, stems, drawn(fromY, toX));
    }

    /** Those that any set reaches, so that two sets can be laid one over the other. */
    private List<Outlet> outlets() {
        Set<Outlet> all = new HashSet<>();
        PatchBay.sets(show).forEach(p -> p.patch().orElseThrow().shown().lines().forEach(l -> all.add(Outlet.of(l))));
        return all.stream()
                .sorted(Comparator.comparingInt((Outlet o) -> placeOf(o.deviceId))
                        .thenComparingInt(Outlet::channel))
                .toList();
    }

    private int placeOf(int deviceId) {
        return show.devices().stream().map(Device::id).toList().indexOf(deviceId);
    }

    private List<Drawn> drawn(Map<Integer, Integer> fromY, Map<Outlet, Integer> toX) {
        Map<Integer, Integer> onStave = new HashMap<>();
        Map<Outlet, Integer> onStem = new HashMap<>();
        List<Drawn> drawn = new ArrayList<>();
        for (int i = 0; i < wiring.lines().size(); i++) {
            PatchLine line = wiring.lines().get(i);
            Outlet outlet = Outlet.of(line);
            int y = fromY.get(line.from()) + APART * onStave.merge(line.from(), 1, Integer::sum) - APART;
            int x = toX.get(outlet) + APART * onStem.merge(outlet, 1, Integer::sum) - APART;
            String path = "M" + (LEFT - 14) + " " + y + "H" + (x - ROUND) + "Q" + x + " " + y + " " + x + " "
                    + (y - ROUND) + "V" + HEAD;
            drawn.add(new Drawn(i + 1, i % 4, path, x, y, label(line, LineForm.of(show, line))));
        }
        return drawn;
    }
}
