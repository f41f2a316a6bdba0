package underbaton.core.cue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Finds numbers for new cues of a show: the plainest that put them where they belong. */
final class CueNumbers {

    private static final CueNumber LOWEST = CueNumber.of("0.001");

    private final Show show;

    /** What stands around a place of the book. */
    private record Gap(Optional<CueNumber> before, Optional<CueNumber> behind) {

        /** Items may stand out of number order after the running order changed. */
        boolean isOpen() {
            return before.isEmpty() || behind.isEmpty() || before.get().compareTo(behind.get()) < 0;
        }

        boolean holds(CueNumber number) {
            return before.map(b -> b.compareTo(number) < 0).orElse(true)
                    && behind.map(b -> number.compareTo(b) < 0).orElse(true);
        }
    }

    CueNumbers(Show show) {
        this.show = show;
    }

    /** @param afterCueId 0 to come first in the item */
    CueNumber after(int itemId, int afterCueId) {
        Gap gap = gap(itemId, afterCueId);
        if (gap.behind.isEmpty()) {
            return highest().map(CueNumber::nextWhole).orElse(CueNumber.of("1"));
        }
        return gap.isOpen()
                ? CueNumber.between(gap.before.orElse(LOWEST), gap.behind.get())
                : free(gap.before.orElseThrow(), 1).get(0);
    }

    /** The cues' own numbers, where these are free and lead to the place; new ones otherwise. */
    List<CueNumber> after(int itemId, int afterCueId, List<Cue> cues) {
        Gap gap = gap(itemId, afterCueId);
        List<CueNumber> own = cues.stream().map(Cue::number).toList();
        boolean rising = own.stream().sorted().distinct().toList().equals(own);
        boolean free =
                own.stream().allMatch(n -> gap.holds(n) && show.cueNumbered(n).isEmpty());
        if (rising && free && gap.isOpen()) {
            return own;
        }
        if (gap.behind.isEmpty()) {
            return CueNumber.spread(highest().orElse(LOWEST), Optional.empty(), cues.size());
        }
        return gap.isOpen()
                ? CueNumber.spread(gap.before.orElse(LOWEST), gap.behind, cues.size())
                : free(gap.before.orElseThrow(), cues.size());
    }

    private Gap gap(int itemId, int afterCueId) {
        Optional<CueNumber> before = Optional.empty();
        boolean passed = false;
        for (Item item : show.items()) {
            passed |= item.id() == itemId && afterCueId == 0;
            for (Cue cue : item.cues()) {
                if (passed) {
                    return new Gap(before, Optional.of(cue.number()));
                }
                before = Optional.of(cue.number());
                passed = cue.id() == afterCueId;
            }
        }
        return new Gap(before, Optional.empty());
    }

    private Optional<CueNumber> highest() {
        return show.cues().map(Cue::number).max(CueNumber::compareTo);
    }

    private List<CueNumber> free(CueNumber before, int count) {
        List<CueNumber> found = new ArrayList<>();
        for (CueNumber next = before.nextWhole(); found.size() < count; next = next.nextWhole()) {
            if (show.cueNumbered(next).isEmpty()) {
                found.add(next);
            }
        }
        return found;
    }
}
