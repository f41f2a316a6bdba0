package underbaton.web.score;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Doubt;
import underbaton.core.cue.Item;
import underbaton.core.cue.Placing;
import underbaton.core.cue.Show;
import underbaton.core.engine.DryRun;
import underbaton.core.exchange.CueTable;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Cut;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.score.Film;
import underbaton.core.score.Score;
import underbaton.core.score.Section;
import underbaton.core.score.Tempo;
import underbaton.core.score.TempoMark;
import underbaton.core.score.Vamp;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.record.WrittenDown;
import underbaton.web.score.Sheet.Bar;
import underbaton.web.score.Sheet.Beat;
import underbaton.web.score.Sheet.Curve;
import underbaton.web.score.Sheet.Left;
import underbaton.web.score.Sheet.Letter;
import underbaton.web.score.Sheet.Line;
import underbaton.web.score.Sheet.Note;
import underbaton.web.score.Sheet.Sign;
import underbaton.web.score.Sheet.Span;
import underbaton.web.score.Sheet.Staff;

/**
 * Sets one item's score: where on the paper each line, note and sign stands.
 */
final class Engraving {

    private static final double LEFT = 96;
    /** What is kept free behind the last barline. */
    private static final double MARGIN = 10;

    private static final double STAFF_GAP = 31;
    private static final double TOP = 106;
    private static final double BELOW = 34;
    private static final double HEAD = 14;
    private static final double LETTER_WIDTH = 6.9;
    private static final double HAIRPIN_BELOW = 9;
    private static final double HAIRPIN_HALF = 5;

    private final Show show;
    private final Plan plan;
    private final PlannedItem planned;
    private final Score score;
    private final Score.Times times;
    private final List<Department> departments;
    private final int lastBar;
    private final List<WrittenDown.Place> written;
    private final Map<Integer, Cue> cues = new HashMap<>();
    private final Map<Department, List<Placed>> placed;

    /** @param itemId of an item that has a score */
    Engraving(Show show, DryRun run, int itemId) {
        this(show, run, itemId, List.of());
    }

    /** @param written the places that are proposed for cues that wait for GO */
    Engraving(Show show, DryRun run, int itemId, List<WrittenDown.Place> written) {
        this.written = written;
        PlannedItem planned = run.plan().item(itemId).orElseThrow();
        this.plan = run.knowing();
        this.show = show;
        this.planned = planned;
        this.times = planned.times().orElseThrow();
        this.score = times.score();
        this.departments = new TreeSet<>(
                        show.devices().stream().map(Device::department).toList())
                .stream().toList();
        this.lastBar = Math.max(score.endBar(), lastCueBar());
        planned.item().cues().forEach(c -> cues.put(c.id(), c));
        this.placed = placed();
    }

    private int lastCueBar() {
        return planned.cues().stream()
                .filter(c -> c.atNanos().isPresent())
                .mapToInt(c -> times.bars().position(tick(c)).bar())
                .max()
                .orElse(1);
    }

    /**
     * @param barsPerLine 0 for the whole song on one page
     * @param width of the paper
     */
    Sheet sheet(int barsPerLine, double width) {
        int bars = barsPerLine > 0 ? barsPerLine : Math.max(8, (lastBar + 1) / 2);
        int first = score.pickUpTicks() > 0 ? 0 : 1;
        List<Line> lines = new ArrayList<>();
        double y = 0;
        for (int bar = first; bar <= lastBar; bar = Math.max(1, bar) + bars) {
            int to = Math.min(lastBar, Math.max(1, bar) + bars - 1);
            double room = (width - MARGIN - LEFT)
                    * (bars > to - bar + 1 && lines.size() > 0 ? (double) (to - bar + 1) / bars : 1);
            lines.add(line(bar, to, y, LEFT + room));
            y += height();
        }
        return new Sheet(lines, width, y, departments, lastBar, "", Set.of());
    }

    /** All bars in one line, as long as it takes. */
    Sheet strip(double barWidth) {
        int first = score.pickUpTicks() > 0 ? 0 : 1;
        Line line = line(first, lastBar, 0, LEFT + barWidth * lastBar);
        StringBuilder beats = new StringBuilder("[");
        for (Bar bar : line.bars()) {
            for (Beat beat : bar.beats()) {
                beats.append("[%d,%.1f],".formatted(times.tempi().nanos(beat.tick()) / 1_000_000, beat.x()));
            }
        }
        long end = times.nanosOfBar(lastBar + 1) / 1_000_000;
        beats.append("[%d,%.1f]]".formatted(end, line.last()));
        return new Sheet(List.of(line), line.last() + 20, height(), departments, lastBar, beats.toString(), Set.of());
    }

    private double height() {
        return TOP + STAFF_GAP * Math.max(0, departments.size() - 1) + BELOW;
    }

    // ---- one line

    private Line line(int from, int to, double y, double right) {
        Ruler ruler = new Ruler(times, from, to, LEFT, right);
        double top = y + TOP;
        Map<Department, Double> staves = new EnumMap<>(Department.class);
        List<Staff> drawn = new ArrayList<>();
        for (Department d : departments) {
            double at = top + STAFF_GAP * staves.size();
            staves.put(d, at);
            drawn.add(new Staff(d, at));
        }
        double bottom = top + STAFF_GAP * Math.max(0, departments.size() - 1);
        List<Note> notes = new ArrayList<>();
        List<Curve> curves = new ArrayList<>();
        notes(ruler, staves, notes, curves);
        return new Line(
                y,
                top,
                bottom,
                LEFT,
                right,
                drawn,
                ruler.bars(),
                tempi(ruler),
                ruler.meters(),
                score.sections().stream()
                        .filter(s -> s.bar() >= from && s.bar() <= to)
                        .map(s -> letter(ruler, s))
                        .toList(),
                notes,
                curves,
                score.vamps().stream().flatMap(v -> vamp(ruler, v).stream()).toList(),
                score.films().stream().flatMap(f -> film(ruler, f).stream()).toList(),
                score.holds().stream()
                        .filter(h -> ruler.holds(h.tick()))
                        .map(h -> new Sign(
                                ruler.x(h.tick()),
                                "%s s".formatted(h.millis() / 1000.0).replace(".0 ", " ")))
                        .toList(),
                lefts(ruler, staves),
                written.stream()
                        .filter(w -> ruler.holds(w.tick()))
                        .map(w -> new Sheet.Proposed(ruler.x(w.tick()), w.number()))
                        .toList());
    }

    private List<Left> lefts(Ruler ruler, Map<Department, Double> staves) {
        List<Left> lefts = new ArrayList<>();
        Placing placing = new Placing(show, planned.item().id());
        for (Section copy : score.sections()) {
            Optional<Section> source = copy.as().flatMap(score::section);
            for (Cue cue : planned.item().cues()) {
                Optional<Long> tick = copy.without().contains(cue.number().toString())
                        ? source.flatMap(s -> placing.tickOf(cue).map(t -> t + start(copy) - start(s)))
                        : Optional.empty();
                tick.filter(ruler::holds).ifPresent(t -> lefts.addAll(lefts(ruler, staves, copy, cue, t)));
            }
        }
        return lefts;
    }

    private List<Left> lefts(Ruler ruler, Map<Department, Double> staves, Section copy, Cue cue, long tick) {
        return show.devices().stream()
                .filter(d -> !cue.callsFor(d.id()).isEmpty())
                .map(Device::department)
                .distinct()
                .map(d -> new Left(
                        cue.id(),
                        copy.letter(),
                        d.code().toLowerCase(Locale.ROOT),
                        ruler.x(tick),
                        staves.get(d),
                        "cue " + cue.number() + " is left out here",
                        tick))
                .toList();
    }

    private long start(Section section) {
        return times.bars().tickOfBar(section.bar());
    }

    private static Letter letter(Ruler ruler, Section s) {
        String as = s.as().map(a -> " = " + a).orElse("");
        return new Letter(ruler.barX(s.bar()), s.letter(), s.name() + as, s.bar(), Fingerprint.of(s));
    }

    private List<Sign> tempi(Ruler ruler) {
        List<Sign> signs = new ArrayList<>();
        Tempo before = null;
        for (TempoMark mark : score.tempi()) {
            if (ruler.holds(mark.tick())) {
                boolean slower = before != null && mark.tempo().quarterMicros() > before.quarterMicros();
                String gradual = mark.overTicks() == 0 ? "" : slower ? "rit. to " : "accel. to ";
                signs.add(new Sign(Math.max(LEFT, ruler.x(mark.tick()) - HEAD), gradual + told(mark.tempo())));
            }
            before = mark.tempo();
        }
        for (Film film : score.films()) {
            long tick = times.bars().tickOfBar(film.bar());
            if (ruler.holds(tick)) {
                signs.add(new Sign(ruler.x(tick) - HEAD, told(film.tempo())));
            }
        }
        return signs;
    }

    /** As musicians write it; a unit that has no sign of its own in words. */
    private String said(Placed p, BiFunction<Cue, Device, String> what) {
        Cue cue = cues.get(p.cue.cueId());
        return show.device(p.call.deviceId())
                .filter(machine -> cue != null)
                .map(machine -> what.apply(cue, machine))
                .orElse("");
    }

    static String told(Tempo tempo) {
        String number = tempo.toString().substring(tempo.toString().indexOf('=') + 2);
        String unit =
                switch (tempo.unit()) {
                    case QUARTER -> "♩";
                    case DOTTED_QUARTER -> "♩.";
                    case EIGHTH -> "♪";
                    case DOTTED_EIGHTH -> "♪.";
                    default -> tempo.unit().words();
                };
        return unit + " = " + number;
    }

    private Optional<Span> vamp(Ruler ruler, Vamp v) {
        String most = v.most() == Vamp.USUAL_MOST ? "" : ", at most " + v.most() + " times";
        return span(
                ruler,
                v.bar(),
                v.after() - 1,
                "vamp until GO, leave " + v.leave().words() + most,
                false);
    }

    private Optional<Span> film(Ruler ruler, Film f) {
        int last = times.bars().position(Math.max(0, times.endOf(f) - 1)).bar();
        Optional<Score.Overlap> overlap =
                score.overlaps().stream().filter(o -> o.film().equals(f)).findFirst();
        String text = ("film " + f.length() + " " + f.name()).strip()
                + overlap.map(o -> ": " + o.what() + " begins " + o.leftMillis() / 1000 + " s before its end")
                        .orElse("");
        return span(ruler, f.bar(), last, text, overlap.isPresent());
    }

    private static Optional<Span> span(Ruler ruler, int first, int last, String text, boolean wrong) {
        if (first > ruler.to || last < ruler.from) {
            return Optional.empty();
        }
        boolean begins = first >= ruler.from;
        boolean ends = last <= ruler.to;
        double x = begins ? ruler.barX(first) : ruler.barX(ruler.from);
        double end = ends ? ruler.barEnd(last) : ruler.barEnd(ruler.to);
        return Optional.of(new Span(x, end, begins, ends, begins ? text : "", wrong));
    }

    // ---- notes, ties and hairpins

    private long tick(PlannedCue cue) {
        return times.tempi().tick(cue.atNanos().orElse(0));
    }

    private void notes(Ruler ruler, Map<Department, Double> staves, List<Note> notes, List<Curve> curves) {
        placed.forEach((d, of) -> {
            // What began last before the line may be held into it.
            int first = 0;
            while (first + 1 < of.size() && of.get(first + 1).tick < ruler.firstTick()) {
                first++;
            }
            for (int i = first; i < of.size() && of.get(i).tick < ruler.lastTick(); i++) {
                long next = i + 1 < of.size() ? of.get(i + 1).tick : Long.MAX_VALUE;
                set(ruler, d, staves.get(d), of, i, next, notes, curves);
            }
        });
    }

    /** The calls of all cues that have a place, by their departments and in the order of their ticks. */
    private Map<Department, List<Placed>> placed() {
        Map<Integer, Department> departmentOf = new HashMap<>();
        show.devices().forEach(d -> departmentOf.put(d.id(), d.department()));
        Map<Department, List<Placed>> found = new EnumMap<>(Department.class);
        for (int i = 0; i < planned.cues().size(); i++) {
            PlannedCue cue = planned.cues().get(i);
            if (cue.atNanos().isEmpty() && i > 0) {
                continue;
            }
            long tick = tick(cue);
            for (PlannedCall call : cue.calls()) {
                found.computeIfAbsent(departmentOf.get(call.deviceId()), d -> new ArrayList<>())
                        .add(new Placed(cue, call, tick, rises(cue, call)));
            }
        }
        found.values().forEach(of -> of.sort(Comparator.comparingLong(Placed::tick)));
        return found;
    }

    /** @param rises whether its move goes up */
    private record Placed(PlannedCue cue, PlannedCall call, long tick, boolean rises) {}

    private boolean rises(PlannedCue cue, PlannedCall call) {
        return call.motion()
                .filter(m -> m.argument().exact(m.target(), m.levels())
                        > plan.startOf(cue.label(), m.control()).orElse(127))
                .isPresent();
    }

    /** What becomes of a fade of which nobody knows where it begins; empty for all others. */
    private String untold(Placed p) {
        return Optional.of(p)
                .filter(of -> plan.isUntold(of.cue, of.call))
                .flatMap(of -> plan.untoldFade(of.cue, of.call.deviceId()))
                .map(w -> ": nobody knows where it stands, so the fade " + w)
                .orElse("");
    }

    private void set(
            Ruler ruler,
            Department d,
            double y,
            List<Placed> of,
            int i,
            long next,
            List<Note> notes,
            List<Curve> curves) {
        Placed p = of.get(i);
        String dept = d.code().toLowerCase(Locale.ROOT);
        boolean last = i + 1 == of.size() || next != p.tick;
        if (ruler.holds(p.tick)) {
            double x = ruler.x(p.tick);
            int sameBefore = 0;
            while (i - sameBefore > 0 && of.get(i - sameBefore - 1).tick == p.tick) {
                sameBefore++;
            }
            double room = next == Long.MAX_VALUE || !ruler.holds(next) ? ruler.right - x : ruler.x(next) - x;
            String told =
                    p.call.phrase() + (p.cue.copy().isEmpty() ? "" : " (as cue " + p.cue.number() + ")") + untold(p);
            String cell = said(p, CueTable::cell);
            String doubt = said(p, (cue, machine) -> Doubt.of(cue, machine).orElse(""));
            String label = sameBefore > 0 || next == p.tick ? joined(of, i - sameBefore) : p.call.phrase();
            boolean hollow =
                    p.call.effect().kind() == Effect.Kind.STOPS || !p.cue.copy().isEmpty();
            notes.add(new Note(
                    p.cue.cueId(),
                    p.call.deviceId(),
                    dept,
                    x,
                    y,
                    hollow,
                    last ? fitting(label, room - 14) : "",
                    told,
                    cell.equals(told) && doubt.isEmpty() ? "" : cell,
                    doubt,
                    p.cue.copy(),
                    p.tick));
            p.call.motion().ifPresent(m -> {
                long end = times.tempi().tick(p.cue.atNanos().orElse(0) + Math.max(m.lastsNanos(), 1));
                double to = Math.max(x + 24, ruler.holds(end) ? ruler.x(end) : ruler.right - 6);
                double under = y + HAIRPIN_BELOW;
                double tip = p.rises ? x + 9 : to;
                double open = p.rises ? to : x + 9;
                String path = "M%.1f %.1f L%.1f %.1f L%.1f %.1f"
                        .formatted(open, under - HAIRPIN_HALF, tip, under, open, under + HAIRPIN_HALF);
                curves.add(new Curve(dept, plan.isUntold(p.cue, p.call) ? "hair untold" : "hair", path));
            });
        }
        if (last && p.call.effect().lasts()) {
            tie(ruler, dept, y, p.tick, next, curves);
        }
    }

    /** @param first of those that come at one tick */
    private static String joined(List<Placed> of, int first) {
        long tick = of.get(first).tick;
        return of.subList(first, of.size()).stream()
                .takeWhile(p -> p.tick == tick)
                .map(p -> p.call.phrase())
                .collect(Collectors.joining(" + "));
    }

    private static void tie(Ruler ruler, String dept, double y, long from, long to, List<Curve> curves) {
        boolean begins = ruler.holds(from);
        boolean ends = ruler.holds(to);
        if (from >= ruler.lastTick() || to <= ruler.firstTick()) {
            return;
        }
        double x = begins ? ruler.x(from) + 2 : LEFT + 4;
        double end = ends ? ruler.x(to) - 12 : ruler.right - 6;
        if (end - x > 14) {
            double middle = (end - x) / 2;
            curves.add(new Curve(dept, "tie", "M%.1f %.1f q%.1f 9 %.1f 0".formatted(x, y + 7, middle, end - x)));
        }
    }

    private static String fitting(String label, double room) {
        int letters = (int) (room / LETTER_WIDTH);
        return label.length() > letters && letters < 3 ? "" : Cut.shown(Math.max(1, letters), label);
    }

    /** The line beside its name: its place, its bars, its length and first tempo. */
    String told(Item item, int place) {
        long seconds = times.nanosOfBar(lastBar + 1) / 1_000_000_000L;
        return "item %d, %s, %d bars, %d:%02d at %s"
                .formatted(
                        place,
                        item.kind().title().toLowerCase(Locale.ROOT),
                        lastBar,
                        seconds / 60,
                        seconds % 60,
                        told(score.tempi().get(0).tempo()));
    }

    /** Cues of the item that wait for GO, but for the first: they have no place on the paper. */
    List<Cue> byHand() {
        Set<Integer> wait = planned.cues().stream()
                .skip(1)
                .filter(p -> p.atNanos().isEmpty())
                .map(PlannedCue::cueId)
                .collect(Collectors.toSet());
        return planned.item().cues().stream().filter(c -> wait.contains(c.id())).toList();
    }
}
