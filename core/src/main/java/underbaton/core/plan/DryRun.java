package underbaton.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import underbaton.core.cue.Item;
import underbaton.core.cue.Start;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Speech.Timed;

/**
 * The messages of one item, as they would leave. Cues that wait for GO count from their own GO, all others from where the
 * item began or from the GO they follow. What shares a DIN line leaves one after another, at 320 µs a byte (MIDI 1.0).
 */
final class DryRun {

    private static final long DIN_BYTE_NANOS = 320_000;
    /** How much of a wave without an end is shown. */
    private static final long WAVE_SHOWN_NANOS = 60_000_000_000L;

    private static final Comparator<PlannedMessage> BY_TIME = Comparator.comparingLong(PlannedMessage::atNanos);

    private final Item item;
    private final Map<Integer, Device> devices;
    private final Map<Control, Double> controls;
    private final Map<Control, Moving> moving = new HashMap<>();

    /** A motion under way, and since when. */
    private record Moving(Course course, Event event) {}

    /** A cue at its time, counted from a GO. */
    private record Event(int since, long nanos, PlannedCue cue) {

        boolean isWith(Event other) {
            return since == other.since && nanos == other.nanos;
        }
    }

    DryRun(Item item, Map<Integer, Device> devices, Map<Control, Double> before) {
        this.item = item;
        this.devices = devices;
        this.controls = new HashMap<>(before);
    }

    List<PlannedMessage> messages(List<PlannedCue> cues) {
        List<PlannedMessage> all = new ArrayList<>();
        List<PlannedMessage> strand = new ArrayList<>();
        List<Event> events = events(cues);
        for (int from = 0; from < events.size(); ) {
            Event first = events.get(from);
            int to = from + 1;
            while (to < events.size() && events.get(to).isWith(first)) {
                to++;
            }
            together(events.subList(from, to), strand);
            if (to == events.size() || events.get(to).since != first.since) {
                finish(strand, all);
            }
            from = to;
        }
        return List.copyOf(all);
    }

    /** What comes in one instant, from however many cues. */
    private void together(List<Event> events, List<PlannedMessage> strand) {
        if (events.size() == 1) {
            Event alone = events.get(0);
            alone.cue.calls().forEach(c -> add(alone, c, strand));
            return;
        }
        events.stream()
                .flatMap(e -> e.cue.calls().stream().map(c -> new Made(e, c)))
                .sorted(Comparator.comparingInt(m -> m.call.rank()))
                .forEach(m -> add(m.event, m.call, strand));
    }

    private record Made(Event event, PlannedCall call) {}

    /** Where each control stands at the end, 0–127. */
    Map<Control, Double> controls() {
        return Map.copyOf(controls);
    }

    /** What lands by itself first, in the order of time, and then each GO with what follows it. */
    private static List<Event> events(List<PlannedCue> cues) {
        List<Event> events = new ArrayList<>(cues.size());
        List<Event> byHand = new ArrayList<>();
        int since = 0;
        long nanos = 0;
        for (int i = 0; i < cues.size(); i++) {
            PlannedCue cue = cues.get(i);
            if (cue.atNanos().isPresent()) {
                events.add(new Event(0, cue.atNanos().getAsLong(), cue));
                continue;
            }
            if (cue.byHand()) {
                since = i == 0 ? 0 : cue.cueId();
                nanos = 0;
            } else if (cue.start() instanceof Start.AfterPrevious after) {
                nanos += after.delayMs() * 1_000_000L;
            }
            (since == 0 ? events : byHand).add(new Event(since, nanos, cue));
        }
        events.sort(Comparator.comparingLong(Event::nanos));
        events.addAll(byHand);
        return events;
    }

    private void add(Event event, PlannedCall call, List<PlannedMessage> strand) {
        boolean lands = event.cue.atNanos().isPresent();
        long wanted = event.nanos + (lands ? call.leavesNanos() : call.afterNanos());
        long at = Math.max(0, wanted);
        String cause = "cue " + event.cue.label();
        for (Timed timed : call.messages()) {
            long due = at + timed.atMs() * 1_000_000L;
            strand.add(message(event, call, due, timed.message(), cause, at - wanted));
        }
        call.levels().forEach((control, exact) -> {
            overtake(control, event, at, strand);
            controls.put(control, exact);
        });
        call.motion().ifPresent(motion -> {
            Control control = motion.control();
            OptionalDouble standing = overtake(control, event, at, strand);
            Course course = motion.from(standing);
            moving.put(control, new Moving(course, new Event(event.since, at, event.cue)));
            controls.put(control, course.restsAt());
            // What nobody knows is said in any case; what the control said last is not said again.
            int said = standing.isPresent() ? course.valueAt(0) : -1;
            steps(course, said, motion, event, call, at, strand);
        });
    }

    private void steps(
            Course course,
            int said,
            PlannedMotion motion,
            Event event,
            PlannedCall call,
            long at,
            List<PlannedMessage> strand) {
        String cause = "cue " + event.cue.label();
        long shown = motion.lastsNanos() > 0 ? motion.lastsNanos() : WAVE_SHOWN_NANOS;
        Optional<Course.Step> step = course.next(0, said, Course.STEP_NANOS);
        while (step.isPresent() && step.get().atNanos() <= shown) {
            Course.Step s = step.get();
            strand.add(message(event, call, at + s.atNanos(), s.message(), cause, 0));
            step = course.next(s.atNanos(), s.value(), Course.STEP_NANOS);
        }
        if (motion.then().isPresent()) {
            PlannedCall then = motion.then().get();
            for (Timed t : then.messages()) {
                long due = at + motion.lastsNanos() + t.atMs() * 1_000_000L;
                strand.add(message(event, then, due, t.message(), cause + ", then " + then.phrase(), 0));
            }
        }
    }

    private PlannedMessage message(Event event, PlannedCall call, long at, Message message, String cause, long late) {
        return new PlannedMessage(
                item.id(), event.since, at, call.deviceId(), message, cause, event.cue.cueId(), late, late > 0);
    }

    /** Ends what the control was doing; @return where it stands then, if anyone knows */
    private OptionalDouble overtake(Control control, Event by, long at, List<PlannedMessage> strand) {
        Moving before = moving.remove(control);
        if (before == null || before.event.since != by.since || before.course.overAt(at - before.event.nanos)) {
            return controls.containsKey(control) ? OptionalDouble.of(controls.get(control)) : OptionalDouble.empty();
        }
        strand.removeIf(m -> m.atNanos() >= at
                && m.cueId() == before.event.cue.cueId()
                && Control.of(m.deviceId(), m.message()).equals(control));
        return OptionalDouble.of(before.course.exactAt(at - before.event.nanos));
    }

    private void finish(List<PlannedMessage> strand, List<PlannedMessage> all) {
        strand.sort(BY_TIME);
        Map<Connection, Long> free = new HashMap<>();
        boolean pushed = false;
        for (int i = 0; i < strand.size(); i++) {
            PlannedMessage m = strand.get(i);
            Device device = devices.get(m.deviceId());
            if (device != null
                    && device.connection() instanceof Connection.LocalMidi line
                    && m.message() instanceof MidiMessage midi) {
                long at = Math.max(m.atNanos(), free.getOrDefault(line, 0L));
                free.put(line, at + midi.encode().length() * DIN_BYTE_NANOS);
                if (at > m.atNanos()) {
                    strand.set(i, m.at(at));
                    pushed = true;
                }
            }
        }
        if (pushed) {
            strand.sort(BY_TIME);
        }
        all.addAll(strand);
        strand.clear();
    }
}
