package underbaton.core.cue;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import underbaton.core.cue.Start.AtPosition;
import underbaton.core.cue.Start.AtSection;
import underbaton.core.cue.Start.AtTime;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Position;
import underbaton.core.score.Score;
import underbaton.core.score.Section;

/** Puts cues onto the beats of one item's score, and moves them there: what hands do on the page Score. */
public final class Placing {

    private final Show show;
    private final Item item;
    private final Score.Times times;

    /** @throws Refusal when the item is gone, or has no score */
    public Placing(Show show, int itemId) {
        this.show = show;
        this.item = show.item(itemId)
                .orElseThrow(() -> new Refusal("item", "That item is no longer in the book; reload the page."));
        this.times = item.score()
                .map(Score::read)
                .orElseThrow(() -> new Refusal("score", "This item has no bars yet; write its score first."));
    }

    /**
     * A call on a department's line. It joins the cue that stands at that tick already, or a new one.
     *
     * @param tick 0 or above
     * @param typed as into a cell of the book; the first machine of the department that has such a phrase gets it
     */
    public Show place(long tick, Department department, String typed) {
        Call call = call(department, typed);
        Optional<Cue> there = landing().stream()
                .filter(c -> tickOf(c).filter(t -> t == tick).isPresent())
                .findFirst();
        if (there.isPresent()) {
            List<Call> calls = new ArrayList<>(there.get().calls());
            calls.add(call);
            return show.withCue(item.id(), there.get().withCalls(calls));
        }
        Start start = new AtPosition(times.bars().position(tick), 0);
        return show.withCue(item.id(), new Cue(0, numberAt(show, tick), start, "", List.of(call), 0));
    }

    private Call call(Department department, String typed) {
        List<Device> machines = show.devices().stream()
                .filter(d -> d.department() == department)
                .toList();
        Refusal first = null;
        for (Device device : machines) {
            try {
                return Call.of(device, typed);
            } catch (Refusal refused) {
                first = first == null ? refused : first;
            }
        }
        throw first != null
                ? first
                : new Refusal("phrase", "There is no machine for " + department.title() + "; add one on the page Rig.");
    }

    /** Cues earlier or later; those of no beat stay where they are. None goes before the first beat. */
    public Show move(List<Integer> cueIds, int bars, int beats) {
        Show changed = show;
        for (Cue cue : chosen(cueIds)) {
            Start start = moved(cue.start(), bars, beats);
            changed = start.equals(cue.start()) ? changed : changed.withCue(item.id(), cue.withStart(start));
        }
        return changed;
    }

    private Start moved(Start start, int bars, int beats) {
        if (start instanceof AtPosition at) {
            long tick = shifted(times.bars().tick(at.position()), bars, beats);
            return new AtPosition(times.bars().position(tick), at.offsetMs());
        }
        if (start instanceof AtSection at) {
            long from = at.tick(times);
            long ticks = shifted(from, bars, beats) - from;
            int beat = times.bars().meter(times.bars().position(from).bar()).beatTicks();
            return new AtSection(at.letter(), (int) (at.thousandths() + ticks * 1000 / beat));
        }
        return start instanceof AtTime at ? new AtTime(Math.max(0, at.millis() + 1000 * (bars * 4 + beats))) : start;
    }

    private long shifted(long tick, int bars, int beats) {
        int bar = times.bars().position(tick).bar();
        long ticks = times.bars().tickOfBar(bar + bars) - times.bars().tickOfBar(bar);
        long wanted = tick + ticks + (long) beats * times.bars().meter(bar).beatTicks();
        return Math.max(0, wanted);
    }

    /** The beat that is nearest to a moment, ns since the item began; as a tick. */
    public long nearestBeat(long nanos) {
        long tick = times.tempi().tick(Math.max(0, nanos));
        Position at = times.bars().position(tick);
        long before = tick - at.tick();
        long after = before + times.bars().meter(at.bar()).beatTicks();
        long toBefore = nanos - times.tempi().nanos(before);
        long toAfter = times.tempi().nanos(after) - nanos;
        return toAfter < toBefore ? after : before;
    }

    /** Bar and beat at a tick of this item's score. */
    public Position position(long tick) {
        return times.bars().position(tick);
    }

    /** A cue comes by itself at a tick from now on, however it began before. */
    public Show stand(int cueId, long tick) {
        Cue cue = chosen(List.of(cueId)).stream()
                .findFirst()
                .orElseThrow(() -> new Refusal("cue", "That cue is no longer in the book; reload the page."));
        return show.withCue(item.id(), cue.withStart(new AtPosition(times.bars().position(tick), 0)));
    }

    /** Cues again, the first of them at a tick and the others as far from it as they are. */
    public Show copy(List<Integer> cueIds, long tick) {
        List<Cue> cues = chosen(cueIds).stream()
                .filter(c -> tickOf(c).isPresent())
                .sorted(Comparator.comparing(c -> tickOf(c).orElseThrow()))
                .toList();
        if (cues.isEmpty()) {
            throw new Refusal("cue", "None of these cues stands on a beat; there is nothing to put here.");
        }
        long shift = tick - tickOf(cues.get(0)).orElseThrow();
        return land(cues, c -> tickOf(c).map(t -> t + shift));
    }

    /**
     * Adds cues: those that have a tick stand there, the others behind the one before them.
     *
     * @param tick where a cue is to stand, 0 or above
     */
    public Show land(List<Cue> cues, Function<Cue, Optional<Long>> tick) {
        Show changed = show;
        int last = 0;
        for (Cue cue : cues) {
            Optional<Long> to = tick.apply(cue);
            CueNumber number = to.isPresent() || last == 0
                    ? numberAt(changed, to.orElse(0L))
                    : changed.numberAfter(item.id(), last);
            int offset = cue.start() instanceof AtPosition at ? at.offsetMs() : 0;
            Start start = to.<Start>map(t -> new AtPosition(times.bars().position(t), offset))
                    .orElse(cue.start());
            last = changed.nextId();
            changed =
                    changed.withCue(item.id(), cue.withId(0).withNumber(number).withStart(start));
        }
        return changed;
    }

    /**
     * Makes a cue's copy in a linked section an exception, or takes the exception back.
     *
     * @param letter of the section that is another again
     * @throws Refusal when there is no such section, or it is not linked
     */
    public Show except(String letter, int cueId) {
        String number = chosen(List.of(cueId)).stream()
                .findFirst()
                .map(c -> c.number().toString())
                .orElseThrow(() -> new Refusal("cue", "That cue is no longer in the book; reload the page."));
        Score score = times.score();
        if (score.section(letter).flatMap(Section::as).isEmpty()) {
            throw new Refusal("section", "Section " + letter + " is not linked to another; reload the page.");
        }
        List<Section> sections = score.sections().stream()
                .map(s -> s.letter().equals(letter) ? s.without(toggled(s.without(), number)) : s)
                .toList();
        return show.withItem(item.withScore(Optional.of(score.withSections(sections))), 0);
    }

    private static List<String> toggled(List<String> numbers, String number) {
        return numbers.contains(number)
                ? numbers.stream().filter(n -> !n.equals(number)).toList()
                : Stream.concat(numbers.stream(), Stream.of(number)).toList();
    }

    private CueNumber numberAt(Show in, long tick) {
        Item now = in.item(item.id()).orElseThrow();
        int after = 0;
        for (Cue cue : now.cues()) {
            boolean later = tickOf(cue).filter(t -> t > tick).isPresent();
            if (later) {
                break;
            }
            after = cue.id();
        }
        return in.numberAfter(item.id(), after);
    }

    private List<Cue> landing() {
        return item.cues().stream()
                .filter(c -> c.start() instanceof AtPosition || c.start() instanceof AtSection)
                .toList();
    }

    private List<Cue> chosen(List<Integer> cueIds) {
        return item.cues().stream().filter(c -> cueIds.contains(c.id())).toList();
    }

    /** The tick of a cue that stands on the score and where there is such a place. */
    public Optional<Long> tickOf(Cue cue) {
        try {
            if (cue.start() instanceof AtPosition at) {
                return Optional.of(times.bars().tick(at.position()));
            }
            return cue.start() instanceof AtSection at ? Optional.of(at.tick(times)) : Optional.empty();
        } catch (Refusal noSuchPlace) {
            return Optional.empty();
        }
    }
}
