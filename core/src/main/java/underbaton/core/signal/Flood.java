package underbaton.core.signal;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import underbaton.core.loop.Clock;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.Controllers;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;

/**
 * Keeps a source that says more than a show can hear from drowning the others. Up to {@value #FREE} signals each tenth of a second all
 * are heard; of more, orders still are (notes, programs, commands, a control that goes on or off), and of what merely moves only the
 * last value, at {@link #release}; at most {@value #MOST} orders. Thread-safe.
 */
public final class Flood {

    static final int FREE = 300;
    static final int MOST = 1000;
    private static final long WINDOW_NANOS = 100_000_000L;
    private static final long TOLD_NANOS = 5_000_000_000L;
    private static final int MOST_SOURCES = 500;
    private static final int MOST_HELD = 2000;

    private final Clock clock;
    private final Map<Source, Inflow> sources = new HashMap<>();

    private static final class Inflow {
        private long window;
        private int so;
        private int orders;
        private long overNanos;
        private boolean isOver;
        private long dropped;
        private final Map<Object, Signal> held = new LinkedHashMap<>();
    }

    /** With nothing heard yet. */
    public Flood(Clock clock) {
        this.clock = clock;
    }

    /** @return what is heard at once, in its order */
    public synchronized List<Signal> hear(Source source, Signal signal) {
        long now = clock.nanos();
        Inflow inflow = sources.get(source);
        if (inflow == null) {
            if (sources.size() >= MOST_SOURCES && !makeRoom(now)) {
                return List.of();
            }
            inflow = new Inflow();
            sources.put(source, inflow);
        }
        long window = Math.floorDiv(now, WINDOW_NANOS);
        if (inflow.window != window) {
            inflow.window = window;
            inflow.so = 0;
            inflow.orders = 0;
        }
        inflow.so++;
        Object control = control(signal.message());
        if (inflow.so <= FREE) {
            inflow.held.remove(control);
            return List.of(signal);
        }
        inflow.overNanos = now;
        inflow.isOver = true;
        return control == null ? order(inflow, signal) : moved(inflow, control, signal);
    }

    private static List<Signal> order(Inflow inflow, Signal signal) {
        if (++inflow.orders <= MOST) {
            return List.of(signal);
        }
        inflow.dropped++;
        return List.of();
    }

    /** A control that went on and off again has been pressed, however much else was said. */
    private static List<Signal> moved(Inflow inflow, Object control, Signal signal) {
        if (inflow.held.size() >= MOST_HELD && !inflow.held.containsKey(control)) {
            inflow.dropped++;
            return List.of();
        }
        Signal before = inflow.held.put(control, signal);
        return before != null && isOn(before.message()) != isOn(signal.message()) ? order(inflow, before) : List.of();
    }

    /** What was held back is heard now. To be called some fifty times a second. */
    public void release(BiConsumer<Source, Signal> ear) {
        Map<Source, List<Signal>> all = new HashMap<>();
        synchronized (this) {
            sources.forEach((source, inflow) -> {
                if (!inflow.held.isEmpty()) {
                    all.put(source, new ArrayList<>(inflow.held.values()));
                    inflow.held.clear();
                }
            });
        }
        all.forEach((source, signals) -> signals.forEach(s -> ear.accept(source, s)));
    }

    /** In words, who says more than is heard, or did in the last seconds. */
    public synchronized List<String> words() {
        long now = clock.nanos();
        List<String> words = new ArrayList<>();
        sources.forEach((source, inflow) -> {
            inflow.isOver &= now - inflow.overNanos <= TOLD_NANOS;
            if (inflow.isOver) {
                words.add("“" + source.name() + "” says more than " + FREE * 10
                        + " things a second. Its orders are heard, and of each of its controls the last value"
                        + (inflow.dropped == 0 ? "." : "; " + inflow.dropped + " were too many even for that."));
            } else {
                inflow.dropped = 0;
            }
        });
        return words;
    }

    private boolean makeRoom(long now) {
        Iterator<Inflow> all = sources.values().iterator();
        long window = Math.floorDiv(now, WINDOW_NANOS);
        while (all.hasNext()) {
            Inflow inflow = all.next();
            if (inflow.held.isEmpty() && inflow.window != window) {
                all.remove();
            }
        }
        return sources.size() < MOST_SOURCES;
    }

    /** What it is the value of; null for what is no value but an order. */
    private static Object control(Message message) {
        if (message instanceof ControlChange c) {
            return Controllers.isMode(c.controller()) ? null : List.of(c.channel(), c.controller());
        }
        if (message instanceof PitchBend b) {
            return List.of(b.channel(), "bend");
        }
        if (message instanceof ChannelPressure p) {
            return List.of(p.channel(), "pressure");
        }
        if (message instanceof PolyPressure p) {
            return List.of(p.channel(), "pressure", p.note());
        }
        boolean value = message instanceof OscMessage osc
                && osc.arguments().size() == 1
                && osc.arguments().get(0) instanceof Number;
        return value ? ((OscMessage) message).address() : null;
    }

    private static boolean isOn(Message message) {
        if (message instanceof ControlChange c) {
            return Controllers.isOn(c.value());
        }
        return message instanceof OscMessage osc && ((Number) osc.arguments().get(0)).doubleValue() != 0;
    }
}
