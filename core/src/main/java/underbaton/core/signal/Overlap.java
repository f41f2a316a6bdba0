package underbaton.core.signal;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import underbaton.core.signal.Pattern.Controller;
import underbaton.core.signal.Pattern.Way;

/**
 * Whether one signal can be meant by two listeners. Two are bound to the same when there is a message that both take, whatever
 * words they are written in. Any thread may ask.
 */
public final class Overlap {

    private static final int HIGHEST = 127;

    private Overlap() {}

    /** Listeners of two different items are never meant at once: that is what items are given for. */
    public static boolean of(Listener one, Listener other) {
        boolean items = one.itemId() == 0 || other.itemId() == 0 || one.itemId() == other.itemId();
        boolean channels = one.channel().isEmpty()
                || other.channel().isEmpty()
                || one.channel().equals(other.channel());
        return items && channels && sources(one.from(), other.from()) && of(one.pattern(), other.pattern());
    }

    /** None named are all machines of the rig, but not those who are none. */
    private static boolean sources(Set<Integer> one, Set<Integer> other) {
        if (one.isEmpty() || other.isEmpty()) {
            return Stream.concat(one.stream(), other.stream()).findAny().isEmpty()
                    || Stream.concat(one.stream(), other.stream()).anyMatch(id -> id != Source.OTHERS);
        }
        return one.stream().anyMatch(other::contains);
    }

    /** Whether there is a message that both take, whatever was heard before. */
    public static boolean of(Pattern one, Pattern other) {
        if (one instanceof Pattern.Note a && other instanceof Pattern.Note b) {
            return a.struck() == b.struck()
                    && meet(a.from(), a.to(), b.from(), b.to())
                    && (!a.struck() || meet(a.softest(), a.hardest(), b.softest(), b.hardest()));
        } else if (one instanceof Controller a && other instanceof Controller b) {
            return a.controller() == b.controller() && (of(a, b) || of(b, a));
        } else if (one instanceof Pattern.Program a && other instanceof Pattern.Program b) {
            return meet(a.from(), a.to(), b.from(), b.to()) && (a.bank() < 0 || b.bank() < 0 || a.bank() == b.bank());
        } else if (one instanceof Pattern.Bend a && other instanceof Pattern.Bend b) {
            return meet(a.from(), a.to(), b.from(), b.to());
        } else if (one instanceof Pattern.Show a && other instanceof Pattern.Show b) {
            return a.command() == b.command() && same(a.cue(), b.cue()) && same(a.list(), b.list());
        } else if (one instanceof Pattern.Song a && other instanceof Pattern.Song b) {
            return meet(a.from(), a.to(), b.from(), b.to());
        } else if (one instanceof Pattern.Osc a && other instanceof Pattern.Osc b) {
            return OscAddress.meet(a.address(), b.address()) && canHold(a.conditions(), b.conditions());
        }
        return one.equals(other);
    }

    private static boolean meet(int from, int to, int otherFrom, int otherTo) {
        return Math.max(from, otherFrom) <= Math.min(to, otherTo);
    }

    private static boolean same(String one, String other) {
        return one.isEmpty() || other.isEmpty() || one.equals(other);
    }

    /** Of one order of the two ways; the other order is asked for too. */
    private static boolean of(Controller a, Controller b) {
        return switch (a.way()) {
            case PRESSED ->
                switch (b.way()) {
                    case PRESSED -> true;
                    case WITHIN -> Math.max(a.from(), b.from()) <= b.to();
                    case RELEASED, CHANGED -> false;
                };
            case RELEASED ->
                switch (b.way()) {
                    case RELEASED -> Math.min(a.from(), b.from()) > 0;
                    case WITHIN -> b.from() < a.from();
                    case PRESSED, CHANGED -> false;
                };
            case WITHIN -> b.way() == Way.WITHIN && meet(a.from(), a.to(), b.from(), b.to());
            case CHANGED ->
                switch (b.way()) {
                    case PRESSED, RELEASED -> b.from() > 0;
                    case WITHIN -> Math.max(b.to(), HIGHEST - b.from()) >= a.from();
                    case CHANGED -> true;
                };
        };
    }

    /** Whether arguments can be such that all conditions hold: tried at, between and beside the values that they name. */
    private static boolean canHold(List<Condition> one, List<Condition> other) {
        List<Condition> all = Stream.concat(one.stream(), other.stream()).toList();
        return all.stream().map(Condition::place).distinct().allMatch(place -> {
            List<Condition> here = all.stream().filter(c -> c.place() == place).toList();
            return candidates(here).stream().anyMatch(value -> here.stream().allMatch(c -> c.holdsFor(value)));
        });
    }

    private static List<Object> candidates(List<Condition> conditions) {
        List<Object> values = new ArrayList<>(List.of("something else", 0.0));
        List<Double> numbers = new ArrayList<>();
        for (Condition condition : conditions) {
            values.add(condition.value());
            Condition.number(condition.value()).ifPresent(numbers::add);
        }
        numbers.sort(null);
        for (int i = 0; i < numbers.size(); i++) {
            double number = numbers.get(i);
            values.add(number);
            values.add(i == 0 ? number - 1 : (numbers.get(i - 1) + number) / 2);
            values.add(number + 1);
        }
        return values;
    }
}
