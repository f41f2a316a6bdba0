package underbaton.core.engine;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import underbaton.core.cue.CueNumber;
import underbaton.core.engine.catchup.Correction;
import underbaton.core.engine.music.MusicState;
import underbaton.core.engine.music.Playing;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Anchor;
import underbaton.core.score.Score;
import underbaton.core.score.Section;

/**
 * A moment of the book to which the machines can be brought, and the orders that bring them there: first {@link #before}, then
 * {@link #catchUp}, then {@link #after}. Where the show merely goes on, the book is taken with the cues that were given; where it jumps,
 * with those that the book puts before the place. Immutable.
 *
 * @param words where it is: {@code just before cue 70}, {@code at bar 17}
 * @param book what the book says of every machine there
 * @param coming what is set there anyway, at once, by the cues of that very moment
 * @param before what is ordered first, so that nothing that plays comes in between, or that what a hold has stopped goes on
 * @param after what is ordered when the machines are right
 * @param stands whether it merely goes on where the music has stood
 */
public record Destination(
        String words,
        PlaybackState book,
        Set<Correction.Key> coming,
        List<Order> before,
        List<Order> after,
        boolean stands) {

    private Destination(
            String words, PlaybackState book, Set<Correction.Key> coming, List<Order> before, List<Order> after) {
        this(words, book, coming, before, after, false);
    }

    /** What it takes to get there. */
    public List<Correction> corrections(PlaybackState now) {
        PlaybackState left = now;
        for (Order order : before) {
            left = Engine.step(left, Event.of(left.nowNanos(), order)).next();
        }
        // A machine that is out tonight misses it like everything else.
        Set<Integer> out = now.plan().out().devices();
        List<Correction> all = stands ? left.correctionsWhereItStands(book) : left.correctionsTo(book);
        return all.stream()
                .filter(c -> !coming.contains(c.key()) && !out.contains(c.key().deviceId()))
                .toList();
    }

    /** The order that brings the machines there, but for these corrections. */
    public Order catchUp(Set<Correction.Key> leftOut) {
        Set<Correction.Key> all = new HashSet<>(leftOut);
        all.addAll(coming);
        return new Order.CatchUp(book, all, stands);
    }

    /**
     * @param state of the running show
     * @param run of the plan that it plays from
     * @param nowNanos by the clock of the events
     * @throws Refusal when the show has no such place
     */
    public static Destination of(Whereto to, PlaybackState state, DryRun run, long nowNanos) {
        return new Finding(state, run, nowNanos).find(to);
    }

    /** One place being looked for. */
    private record Finding(PlaybackState state, DryRun run, long now) {

        Destination find(Whereto to) {
            if (to instanceof Whereto.Standby) {
                return standby();
            } else if (to instanceof Whereto.Present) {
                return new Destination("as the book has it now", present(), Set.of(), List.of(), List.of());
            } else if (to instanceof Whereto.Next next) {
                return next(next.leadNanos());
            } else if (to instanceof Whereto.AtCue cue) {
                return fromCue(numbered(cue.number()));
            } else if (to instanceof Whereto.CueBefore) {
                return fromCue(before());
            } else if (to instanceof Whereto.InItem leader) {
                return led(leader);
            }
            return state.playing().isPresent() ? place(state.playing().get(), to) : fromPlace(to);
        }

        private Plan plan() {
            return run.plan();
        }

        private Destination standby() {
            Optional<PlannedCue> cue = state.standbyCue();
            int index = cue.map(c -> plan().indexOf(c))
                    .filter(i -> i >= 0)
                    .orElse(plan().cues().size());
            List<Order> before =
                    List.of(new Order.Leave(cue.map(PlannedCue::cueId).orElse(0)));
            String words = cue.map(c -> "just before cue " + c.label()).orElse("at the end of the book");
            return new Destination(words, run.before(index), Set.of(), before, List.of());
        }

        private PlaybackState present() {
            if (state.playing().isPresent()) {
                Playing playing = state.playing().get();
                PlaybackState book =
                        run.at(playing.item().item().id(), playing.position(now), GivenCues.in(state, playing.item()));
                // What is under way goes on while the music stands in a pause; a hold stops it.
                return state.progress().held() ? stopped(book) : playing.paused() ? book.atRest() : book;
            }
            Optional<PlannedCue> last = state.last().map(MusicState.Fired::cue).filter(c -> plan().indexOf(c) >= 0);
            return last.map(c -> run.after(plan().indexOf(c), given(c.item().id())))
                    .orElseGet(() -> run.before(state.standby()));
        }

        private GivenCues given(int itemId) {
            return GivenCues.in(state, plan().item(itemId).orElseThrow());
        }

        private static PlaybackState stopped(PlaybackState book) {
            return Engine.step(book, Event.of(book.nowNanos(), new Order.Hold()))
                    .next();
        }

        private PlannedCue numbered(CueNumber number) {
            return plan().cues().stream()
                    .filter(c -> c.number().equals(number) && c.copy().isEmpty())
                    .findFirst()
                    .orElseThrow(() -> new Refusal("number", "There is no cue " + number + " in this show."));
        }

        private PlannedCue before() {
            int index = plan().waitingBefore(state.standby());
            if (index < 0 || index >= state.standby()) {
                throw new Refusal("number", "There is no cue before this one.");
            }
            return plan().cues().get(index);
        }

        /** The machines as they are just before the cue, and then the cue, and what the music brings behind it. */
        private Destination fromCue(PlannedCue cue) {
            String words = "at cue " + cue.label();
            int index = plan().indexOf(cue);
            PlaybackState book = cue.atNanos().isPresent() ? run.beforeLanding(index) : run.before(index);
            List<Order> left = List.of(new Order.Leave(cue.cueId()));
            if (cue.atNanos().isPresent()) {
                int itemId = cue.item().id();
                long at = cue.atNanos().getAsLong();
                return new Destination(
                        words,
                        book,
                        coming(plan().item(itemId).orElseThrow(), at),
                        left,
                        List.of(new Order.Play(itemId, at, cue.cueId()), new Order.TakeUp(book)));
            }
            return new Destination(
                    words, book, Set.of(), left, List.of(new Order.StandBy(cue.cueId()), new Order.Go()));
        }

        /** The item plays from there on. */
        private Destination playing(int itemId, long nanos, String words) {
            PlannedItem item = plan().item(itemId).orElseThrow();
            PlaybackState book = run.before(itemId, nanos);
            Order leave = new Order.Leave(
                    item.cues().isEmpty() ? 0 : item.cues().get(0).cueId());
            return new Destination(
                    words,
                    book,
                    coming(item, nanos),
                    List.of(leave),
                    List.of(new Order.Play(itemId, nanos), new Order.TakeUp(book)));
        }

        /** By orders that are nobody's own; where another item plays, or none, this one plays from there on. */
        private Destination led(Whereto.InItem leader) {
            PlannedItem item = plan().item(leader.itemId())
                    .orElseThrow(() -> new Refusal("item", "That item is no longer in the book."));
            Optional<Playing> plays =
                    state.playing().filter(p -> p.item().item().id() == leader.itemId());
            int permille = plays.map(p -> p.anchor().permille()).orElse(Anchor.AS_WRITTEN);
            long nanos = new Anchor(leader.asOfNanos(), leader.fromNanos(), permille).position(now);
            Destination there = plays.isEmpty() || nanos <= 0
                    ? playing(leader.itemId(), Math.max(0, nanos), words(item, nanos))
                    : inItem(item, nanos, OptionalLong.of(now), words(item, nanos));
            return new Destination(
                    there.words, there.book, there.coming, asLed(there.before), asLed(there.after), there.stands);
        }

        private static List<Order> asLed(List<Order> orders) {
            return orders.stream().<Order>map(Order.Led::new).toList();
        }

        private static String words(PlannedItem item, long nanos) {
            return item.item().name()
                    + item.times().map(t -> " " + words(t, Math.max(0, nanos))).orElse("");
        }

        private Destination next(long lead) {
            int index = reached(lead) + 1;
            while (index < plan().cues().size()
                    && (plan().cues().get(index).follows()
                            || !plan().cues().get(index).armed())) {
                index++;
            }
            if (index >= plan().cues().size()) {
                throw new Refusal("next", "There is no cue behind this one.");
            }
            PlannedCue cue = plan().cues().get(index);
            if (cue.atNanos().isPresent()) {
                long from = Math.max(0, cue.atNanos().getAsLong() - lead);
                return playing(cue.item().id(), from, "on the way to cue " + cue.label());
            }
            return new Destination(
                    "just before cue " + cue.label(),
                    run.before(index),
                    Set.of(),
                    List.of(new Order.Leave(cue.cueId())),
                    List.of());
        }

        /** The place of the cue that the show has come to; one that is about to come counts. */
        private int reached(long lead) {
            int last = state.last().map(l -> plan().indexOf(l.cue())).orElse(-1);
            if (state.playing().isEmpty()) {
                return state.operator().moved() ? state.standby() : last;
            }
            Playing playing = state.playing().get();
            long soon = playing.position(now) + lead;
            int first = plan().firstOf(playing.item().item().id());
            int reached = Math.max(last, first - 1);
            return Math.max(reached, first + playing.item().behind(soon + 1) - 1);
        }

        /** Where nothing plays, the item that stands by is played from there. */
        private Destination fromPlace(Whereto to) {
            PlannedItem item = state.itemInHand()
                    .flatMap(i -> plan().item(i.item().id()))
                    .filter(i -> i.times().isPresent())
                    .orElseThrow(
                            () -> new Refusal("bar", "What stands by has no bars; jump to a cue of a song first."));
            long nanos = nanos(item.times().get(), 0, to);
            return playing(
                    item.item().id(),
                    nanos,
                    item.item().name() + " " + words(item.times().get(), nanos));
        }

        private static String words(Score.Times times, long nanos) {
            return "at bar " + times.bars().position(times.tempi().tick(nanos)).bar();
        }

        private Destination place(Playing playing, Whereto to) {
            long here = playing.position(now);
            PlannedItem item = playing.item();
            if (to instanceof Whereto.Here || item.times().isEmpty()) {
                return new Destination(
                        item.times().map(t -> words(t, here)).orElse("where it stopped"),
                        run.at(item.item().id(), here, GivenCues.in(state, item)),
                        Set.of(),
                        List.of(new Order.Resume()),
                        List.of(),
                        true);
            }
            long nanos = to instanceof Whereto.AsIfSince since
                    ? playing.positionAsIf(since.sinceNanos(), now)
                    : nanos(item.times().get(), here, to);
            if (nanos <= 0) {
                // From its beginning, with the cue that opens it.
                return playing(item.item().id(), 0, words(item.times().get(), 0));
            }
            OptionalLong asOf = to instanceof Whereto.AsIfSince ? OptionalLong.of(now) : OptionalLong.empty();
            return inItem(item, nanos, asOf, words(item.times().get(), nanos));
        }

        private Destination inItem(PlannedItem item, long nanos, OptionalLong asOf, String words) {
            PlaybackState book = run.before(item.item().id(), nanos);
            return new Destination(
                    words,
                    book,
                    coming(item, nanos),
                    List.of(new Order.BreakOff()),
                    List.of(new Order.PlayOn(nanos, asOf), new Order.TakeUp(book)));
        }

        private static long nanos(Score.Times times, long here, Whereto to) {
            if (to instanceof Whereto.Letter section) {
                return times.score().sections().stream()
                        .filter(s -> s.letter().equalsIgnoreCase(section.letter()))
                        .map(s -> times.nanosOfBar(s.bar()))
                        .findFirst()
                        .orElseThrow(() -> new Refusal("bar", "This song has no section " + section.letter() + "."));
            }
            if (to instanceof Whereto.Bar bar) {
                return times.nanosOfBarAsked(bar.bar());
            }
            return times.score().sections().stream()
                    .map(Section::bar)
                    .map(times::nanosOfBar)
                    .filter(n -> n <= here)
                    .reduce((one, later) -> later)
                    .orElse(0L);
        }

        /** A look that the next instant takes away again would only be a flash. */
        private static Set<Correction.Key> coming(PlannedItem item, long nanos) {
            Set<Correction.Key> coming = new HashSet<>();
            item.timed().stream()
                    .filter(t -> t.momentNanos() == nanos)
                    .flatMap(t -> t.calls().stream())
                    .forEach(call -> coming.addAll(Correction.Key.of(call)));
            return coming;
        }
    }
}
