package underbaton.core.perform;

import java.util.HashMap;
import java.util.Iterator;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Consumer;
import underbaton.core.plan.Course;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedMotion;
import underbaton.core.rig.Control;

/**
 * The controls that are moving, and where each control stands. A step is made a few milliseconds before it is due, as the
 * performer hands it over; so a move that is overtaken has at most these few steps in a queue, and the one that overtakes
 * it begins behind them, where the control is at that moment.
 */
final class Motions {

    private final Consumer<Sending> outbox;
    private final Map<Control, Double> standing = new HashMap<>();
    private final Map<Control, Moving> moving = new HashMap<>();

    /** @param next the step that comes, counted from where the motion began */
    private record Moving(Course course, PlannedMotion motion, long began, Optional<Course.Step> next, String cause) {}

    /** Something that a motion ends in. */
    record Ending(PlannedCall call, long due, String cause) {}

    Motions(Consumer<Sending> outbox) {
        this.outbox = outbox;
    }

    /** A call has set its controls at once: what moved them is over. */
    void set(PlannedCall call) {
        call.levels().forEach((control, exact) -> {
            moving.remove(control);
            standing.put(control, exact);
        });
    }

    void begin(PlannedMotion motion, long due, String cause) {
        Control control = motion.control();
        OptionalDouble at = standsAt(control, due);
        Course course = motion.from(at);
        int said = at.isPresent() ? course.valueAt(0) : -1;
        moving.put(control, new Moving(course, motion, due, course.next(0, said, gap(control)), cause));
        standing.put(control, course.restsAt());
    }

    /** Where a control is at a moment, 0–127; empty when nobody knows. */
    OptionalDouble standsAt(Control control, long nanos) {
        Moving now = moving.get(control);
        if (now != null) {
            return OptionalDouble.of(now.course.exactAt(Math.max(0, nanos - now.began)));
        }
        Double known = standing.get(control);
        return known == null ? OptionalDouble.empty() : OptionalDouble.of(known);
    }

    /** Several that move on one device share its line. */
    private long gap(Control control) {
        long together = moving.keySet().stream()
                .filter(c -> c.deviceId() == control.deviceId() && !c.equals(control))
                .count();
        return Course.STEP_NANOS * (1 + together);
    }

    /** Hands over what is due by a moment. @param ended gets the calls that motions end in */
    void work(long now, Consumer<Ending> ended) {
        for (Iterator<Map.Entry<Control, Moving>> all = moving.entrySet().iterator(); all.hasNext(); ) {
            Map.Entry<Control, Moving> entry = all.next();
            Moving m = entry.getValue();
            while (m.next.isPresent() && m.began + m.next.get().atNanos() <= now) {
                m = stepped(m, entry.getKey());
            }
            entry.setValue(m);
        }
        // A call at the end may begin another motion, so it is made when the walk is over.
        moving.values().stream()
                .filter(m -> m.course.overAt(now - m.began))
                .toList()
                .forEach(m -> {
                    moving.remove(m.motion.control());
                    m.motion
                            .then()
                            .ifPresent(then -> ended.accept(new Ending(
                                    then, m.began + m.motion.lastsNanos(), m.cause + ", then " + then.phrase())));
                });
    }

    private Moving stepped(Moving m, Control control) {
        Course.Step step = m.next.orElseThrow();
        outbox.accept(new Sending(control.deviceId(), step.message(), m.began + step.atNanos(), m.cause));
        return new Moving(
                m.course, m.motion, m.began, m.course.next(step.atNanos(), step.value(), gap(control)), m.cause);
    }

    /** When the next step or end is due, by the clock; {@code Long.MAX_VALUE} when nothing moves. */
    long nextDue() {
        long due = Long.MAX_VALUE;
        for (Moving m : moving.values()) {
            if (m.next.isPresent()) {
                due = Math.min(due, m.began + m.next.get().atNanos());
            } else if (m.motion.lastsNanos() > 0) {
                due = Math.min(due, m.began + m.motion.lastsNanos());
            }
        }
        return due;
    }

    /** Leaves every control where it is. */
    void halt(long now) {
        moving.forEach((control, m) -> standing.put(control, m.course.exactAt(Math.max(0, now - m.began))));
        moving.clear();
    }
}
