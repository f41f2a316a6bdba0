package underbaton.core.cue;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import underbaton.core.rig.PatchKind;
import underbaton.core.rig.PatchLine;
import underbaton.core.rig.PatchRange;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.rig.Wiring;

/** Pages of hand cues and patch sets of any kind for a random show. */
final class RandomHands {

    private final RandomShows make;
    private final Random random;

    RandomHands(RandomShows make, Random random) {
        this.make = make;
        this.random = random;
    }

    /** A page with keys. */
    Show withPage(Show show) {
        Show with = Hands.withPage(show, "P" + make.text(30));
        HandPage page = with.hands().get(with.hands().size() - 1);
        with = Hands.withGrid(with, page.id(), page.name(), 2 + random.nextInt(5), 2 + random.nextInt(7));
        HandPage grid = Hands.page(with, page.id()).orElseThrow();
        for (int row = 0; row < grid.rows(); row++) {
            if (random.nextBoolean()) {
                int column = random.nextInt(grid.columns());
                with = Hands.withKey(with, page.id(), key(with, row, column));
            }
        }
        return with;
    }

    private HandKey key(Show show, int row, int column) {
        return new HandKey(
                0,
                row,
                column,
                "K" + make.text(30),
                make.one(Mark.values()),
                make.one(HandKey.Way.values()),
                calls(show),
                calls(show),
                random.nextBoolean());
    }

    private List<Call> calls(Show show) {
        List<Call> all = show.cues().flatMap(c -> c.calls().stream()).toList();
        List<Call> calls = new ArrayList<>();
        for (int i = all.isEmpty() ? 0 : random.nextInt(4); i > 0; i--) {
            calls.add(make.any(all));
        }
        return calls;
    }

    /** A patch set, kept or being tried. */
    Show withSet(Show show) {
        Show with = PatchBay.withNew(show, "S" + random.nextInt(1_000_000), wiring(show));
        Phrase set = make.any(PatchBay.sets(with));
        return random.nextBoolean()
                ? with
                : PatchBay.with(with, set.withPatch(set.patch().orElseThrow().trying(wiring(with))));
    }

    private Wiring wiring(Show show) {
        Set<PatchLine> lines = new HashSet<>();
        for (int i = random.nextInt(5); i > 0; i--) {
            lines.add(line(show));
        }
        return new Wiring(
                new ArrayList<>(lines),
                random.nextBoolean()
                        ? Set.of()
                        : Set.of(make.any(show.devices()).id()));
    }

    private PatchLine line(Show show) {
        Set<PatchKind> kinds = EnumSet.of(make.one(PatchKind.values()), make.one(PatchKind.values()));
        return new PatchLine(
                make.any(show.devices()).id(),
                channel(),
                make.any(show.devices()).id(),
                channel(),
                kinds,
                range(0),
                range(1),
                range(0),
                range(0),
                random.nextInt(121) - 60);
    }

    private OptionalInt channel() {
        return random.nextBoolean() ? OptionalInt.empty() : OptionalInt.of(random.nextInt(16));
    }

    private PatchRange range(int least) {
        int from = least + random.nextInt(128 - least);
        return new PatchRange(from, from + random.nextInt(128 - from));
    }
}
