package underbaton.core.engine.follow;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import underbaton.core.engine.music.Playing;
import underbaton.core.follow.Following;
import underbaton.core.follow.TimeFilter;
import underbaton.core.follow.TimeFilter.Sender;
import underbaton.core.score.Anchor;
import underbaton.core.score.Score;

/**
 * What the taps on the beat say of where the music is. A tap means one of the two beats of the written tempo between which it falls, or none
 * (a wild one, or that of somebody who taps twice a beat); which of them, the next taps show. So a few guesses are kept beside each other,
 * each with a filter of its own (that of machines, which takes a hand for less exact and a band for less steady: {@link Sender#HAND}) and
 * with how likely it is, and
 * the music goes by the best until another one is much better. Each beat is to be tapped: of the first of a bar alone the beat is lost in
 * about half of the made-up bands when they slow down, and taps twice a beat slip by half a beat in some. Immutable.
 *
 * @param itemId of the item that is tapped to
 * @param guesses first that by which the music goes
 */
record Taps(int itemId, List<Guess> guesses) {

    private static final int MOST_GUESSES = 8;
    /** Guesses that are less likely than the best by so much are forgotten: the logarithm of the ratio. */
    private static final double HOPELESS = 14;

    /** What is farther off is no better tempo but another beat, s. */
    private static final double ANOTHER_BEAT = 0.12;

    /** By so much another guess has to be more likely: the logarithm of the ratio. */
    private static final double MUCH_BETTER = 3.5;

    /** So many taps mean no beat at all. */
    private static final double MEANT_FOR_NOTHING = 0.07;

    /** The first of a bar is tapped rather than another beat, and seldom what lies between two: logarithms. */
    private static final double ONE = 1;

    private static final double BETWEEN = -1;

    /** Guesses that are nearer to each other are one: s, and of the pace. */
    private static final double SAME_PLACE = 0.012;

    private static final double SAME_PACE = 0.01;

    /** From the music's own place, of which nobody knows better: deviation of it, s. */
    private static final double PLACE_AT_FIRST = 0.06;

    /** What a tap may change at the least, of a bar. */
    private static final double LEAST_OF_BAR = 1.0 / 16;

    private static final double SECOND = 1e9;

    /** @param likely the logarithm of how likely it is, the best having 0 */
    record Guess(TimeFilter filter, double likely) {}

    /** Before the first tap: where the music is. */
    static Taps none(Playing p, long now) {
        TimeFilter here = new TimeFilter(
                now,
                p.position(now),
                p.anchor().permille() / (double) Anchor.AS_WRITTEN,
                PLACE_AT_FIRST * PLACE_AT_FIRST,
                0,
                Sender.HAND.atFirst() * Sender.HAND.atFirst(),
                0);
        return new Taps(p.item().item().id(), List.of(new Guess(here, 0)));
    }

    TimeFilter best() {
        return guesses.get(0).filter;
    }

    /** With another tap, now. @return empty where nothing can be tapped to */
    Optional<Taps> heard(Playing p, long now, Following how) {
        if (p.paused() || p.item().times().isEmpty()) {
            return Optional.empty();
        }
        Score.Times times = p.item().times().get();
        List<Guess> all = new ArrayList<>();
        int led = 0;
        for (Guess guess : guesses) {
            branch(guess, times, now, how.mostPercent() / 100.0, all);
            led = led == 0 ? all.size() : led;
        }
        return Optional.of(new Taps(itemId, theBestOf(all, led)));
    }

    private static void branch(Guess guess, Score.Times times, long now, double mostInABar, List<Guess> into) {
        TimeFilter expected = guess.filter.at(now, Sender.HAND);
        long place = Math.max(0, Math.round(expected.place()));
        long tick = times.tempi().tick(place);
        double beat = times.tempi().beatNanos(tick) / SECOND;
        into.add(new Guess(expected, guess.likely + Math.log(MEANT_FOR_NOTHING / beat)));
        double bars = (now - guess.filter.atNanos()) / barNanos(times, tick);
        double most = mostInABar * Math.max(LEAST_OF_BAR, bars);
        for (Meant meant : around(times, tick)) {
            TimeFilter taken =
                    expected.taking(meant.nanos, Sender.HAND).within(expected.pace() - most, expected.pace() + most);
            into.add(new Guess(taken, guess.likely + expected.likelihood(meant.nanos, Sender.HAND) + meant.likely));
        }
    }

    /** What a tap may mean. @param nanos of the music @param likely beforehand, the logarithm */
    private record Meant(long nanos, double likely) {}

    /** The two beats around a place, and the middle between them. */
    private static List<Meant> around(Score.Times times, long tick) {
        int beat = times.tempi().beatTicks(tick);
        int bar = Math.max(1, times.bars().position(tick).bar());
        long barline = times.bars().tickOfBar(bar);
        long first = barline + Math.floorDiv(tick - barline, beat) * beat;
        long end = tick < barline ? barline : times.bars().tickOfBar(bar + 1);
        long second = Math.min(first + beat, end);
        return List.of(
                new Meant(times.tempi().nanos(Math.max(0, first)), first == barline ? ONE : 0),
                new Meant(times.tempi().nanos(second), second == end ? ONE : 0),
                new Meant(times.tempi().nanos(Math.max(0, (first + second) / 2)), BETWEEN));
    }

    private static double barNanos(Score.Times times, long tick) {
        int bar = Math.max(1, times.bars().position(tick).bar());
        return Math.max(1, times.nanosOfBar(bar + 1) - times.nanosOfBar(bar));
    }

    /** That by which the music went stays the first until one on another beat is much better. @param led how many of them came of it */
    private static List<Guess> theBestOf(List<Guess> all, int led) {
        Comparator<Guess> byLikelihood = Comparator.comparingDouble(Guess::likely);
        Guess best = Collections.max(all, byLikelihood);
        Guess stays = Collections.max(all.subList(0, led), byLikelihood);
        List<Guess> sorted = new ArrayList<>(all);
        sorted.sort(byLikelihood.reversed());
        boolean far = Math.abs(best.filter.place() - stays.filter.place()) > ANOTHER_BEAT * SECOND;
        if (far && best.likely - stays.likely < MUCH_BETTER) {
            sorted.add(0, stays);
        }
        List<Guess> left = new ArrayList<>();
        for (Guess guess : sorted) {
            boolean told = left.stream().anyMatch(l -> isSame(l.filter, guess.filter));
            if (!told && left.size() < MOST_GUESSES && best.likely - guess.likely < HOPELESS) {
                left.add(new Guess(guess.filter, guess.likely - best.likely));
            }
        }
        return List.copyOf(left);
    }

    private static boolean isSame(TimeFilter one, TimeFilter other) {
        return Math.abs(one.place() - other.place()) < SAME_PLACE * SECOND
                && Math.abs(one.pace() - other.pace()) < SAME_PACE;
    }

    /** The same with all its moments so many ns later. */
    Taps shifted(long nanos) {
        return new Taps(
                itemId,
                guesses.stream()
                        .map(g -> new Guess(g.filter.shifted(nanos), g.likely))
                        .toList());
    }
}
