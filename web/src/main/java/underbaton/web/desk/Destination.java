package underbaton.web.desk;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import underbaton.core.engine.CatchUp;
import underbaton.core.engine.Correction;
import underbaton.core.engine.Engine;
import underbaton.core.engine.Event;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;

/**
 * A moment of the book to which the machines can be brought.
 *
 * @param words where it is: {@code just before cue 70}, {@code at bar 17}
 * @param book what the book says of every machine there
 * @param coming what is set there anyway, at once, by the cues of that very moment
 * @param before what is ordered first, so that nothing that plays comes in between
 * @param after what is ordered when the machines are right
 */
record Destination(
        String words, PlaybackState book, Set<Correction.Key> coming, List<Order> before, List<Order> after) {

    /** What it takes to get there. */
    List<Correction> corrections(PlaybackState now) {
        PlaybackState left = now;
        for (Order order : before) {
            left = Engine.step(left, Event.of(left.nowNanos(), order)).next();
        }
        return CatchUp.between(book, left).stream()
                .filter(c -> !coming.contains(c.key()))
                .toList();
    }

    Order catchUp(Set<Correction.Key> leftOut) {
        Set<Correction.Key> all = new HashSet<>(leftOut);
        all.addAll(coming);
        return new Order.CatchUp(book, all);
    }
}
