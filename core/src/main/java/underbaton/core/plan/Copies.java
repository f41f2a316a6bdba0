package underbaton.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import underbaton.core.cue.Item;
import underbaton.core.cue.Start;
import underbaton.core.score.Score;
import underbaton.core.score.Section;

/**
 * The cues of linked sections: a section that is another again gets that one's cues at the same distance from its own
 * beginning, but for those it goes without; beats of their fades and offsets last as they do there.
 */
final class Copies {

    private final Score.Times times;
    private final Item item;
    private final List<PlannedCue> own;
    private final Calls calls;

    /** The calls of a cue, worked out for a moment of the item, ns since it began. */
    interface Calls {
        List<PlannedCall> of(int cueId, long atNanos);
    }

    /** @param own the item's cues themselves */
    Copies(Score.Times times, Item item, List<PlannedCue> own, Calls calls) {
        this.calls = calls;
        this.times = times;
        this.item = item;
        this.own = own;
    }

    /** The item's cues with the copies among them, each before the first cue that lands later. */
    List<PlannedCue> among() {
        List<PlannedCue> all = own;
        for (Section copy : times.score().sections()) {
            Optional<Section> source = copy.as().flatMap(times.score()::section);
            if (source.isPresent()) {
                List<PlannedCue> with = new ArrayList<>(all);
                copies(source.get(), copy).forEach(c -> insert(with, c));
                all = with;
            }
        }
        return all;
    }

    private List<PlannedCue> copies(Section source, Section copy) {
        List<PlannedCue> copies = new ArrayList<>();
        long shift = start(copy) - start(source);
        long end = times.endOf(copy);
        OptionalLong last = OptionalLong.empty();
        for (PlannedCue cue : own) {
            boolean left = copy.without().contains(cue.number().toString());
            if (cue.start() instanceof Start.Landing) {
                Optional<Long> tick = tickIn(source, cue).map(t -> t + shift).filter(t -> t >= 0 && t < end);
                last = tick.isPresent() && !left
                        ? OptionalLong.of(Math.max(0, times.tempi().nanos(tick.get()) + offset(cue)))
                        : OptionalLong.empty();
            } else if (cue.start() instanceof Start.ByHand) {
                last = OptionalLong.empty();
            } else if (last.isPresent()) {
                last = OptionalLong.of(last.getAsLong() + delay(cue));
            }
            if (last.isPresent() && !left) {
                copies.add(new PlannedCue(
                        cue.cueId(),
                        cue.number(),
                        cue.what(),
                        cue.start(),
                        last,
                        item,
                        calls.of(cue.cueId(), last.getAsLong()),
                        copy.letter()));
            }
        }
        return copies;
    }

    /** The tick of a cue that belongs to the section. */
    private Optional<Long> tickIn(Section source, PlannedCue cue) {
        if (cue.atNanos().isEmpty()) {
            return Optional.empty();
        }
        if (cue.start() instanceof Start.AtSection at) {
            return at.letter().equals(source.letter()) ? Optional.of(at.tick(times)) : Optional.empty();
        }
        if (cue.start() instanceof Start.AtPosition at) {
            long tick = times.bars().tick(at.position());
            return tick >= start(source) && tick < times.endOf(source) ? Optional.of(tick) : Optional.empty();
        }
        return Optional.empty();
    }

    private static long offset(PlannedCue cue) {
        return cue.start() instanceof Start.AtPosition at ? at.offsetMs() * 1_000_000L : 0;
    }

    private static long delay(PlannedCue cue) {
        return cue.start() instanceof Start.AfterPrevious after ? after.delayMs() * 1_000_000L : 0;
    }

    private long start(Section section) {
        return times.bars().tickOfBar(section.bar());
    }

    private static void insert(List<PlannedCue> cues, PlannedCue copy) {
        int place = cues.size();
        for (int i = 0; i < cues.size() && place == cues.size(); i++) {
            PlannedCue other = cues.get(i);
            if (other.start() instanceof Start.Landing
                    && other.atNanos().orElse(0) > copy.atNanos().orElse(0)) {
                place = i;
            }
        }
        cues.add(place, copy);
    }
}
