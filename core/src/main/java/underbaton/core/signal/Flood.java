package underbaton.core.signal;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.Controllers;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.perform.Clock;

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
    private final Map<Source, Said> sources = new HashMap<>();

    private static final class Said {
        private long window;
        private int so;
        private int orders;
        private long overNanos;
        private boolean isOver;
        private long dropped;
        private final Map<Object, Signal> held = new LinkedHashMap<>();
    }

    public Flood(Clock clock) {
        this.clock = clock;
    }

    /** @return what is heard at once, in its order */
    public synchronized List<Signal> hear(Source source, Signal signal) {
        long now = clock.nanos();
        Said said = sources.get(source);
        if (said == null) {
            if (sources.size() >= MOST_SOURCES && !makeRoom(now)) {
                return List.of();
            }
            said = new Said();
            sources.put(source, said);
        }
        long window = Math.floorDiv(now, WINDOW_NANOS);
        if (said.window != window) {
            said.window = window;
            said.so = 0;
            said.orders = 0;
        }
        said.so++;
        Object control = control(signal.message());
        if (said.so <= FREE) {
            said.held.remove(control);
            return List.of(signal);
        }
        said.overNanos = now;
        said.isOver = true;
        return control == null ? order(said, signal) : moved(said, control, signal);
    }

    private static List<Signal> order(Said said, Signal signal) {
        if (++said.orders <= MOST) {
            return List.of(signal);
        }
        said.dropped++;
        return List.of();
    }

    /** A control that went on and off again has been pressed, however much else was said. */
    private static List<Signal> moved(Said said, Object control, Signal signal) {
        if (said.held.size() >= MOST_HELD && !said.held.containsKey(control)) {
            said.dropped++;
            return List.of();
        }
        Signal before = said.held.put(control, signal);
        return before != null && isOn(before.message()) != isOn(signal.message()) ? order(said, before) : List.of();
    }

    /** What was held back is heard now. To be called some fifty times a second. */
    public void release(BiConsumer<Source, Signal> ear) {
        Map<Source, List<Signal>> all = new HashMap<>();
        synchronized (this) {
            sources.forEach((source, said) -> {
                if (!said.held.isEmpty()) {
                    all.put(source, new ArrayList<>(said.held.values()));
                    said.held.clear();
                }
            });
        }
        all.forEach((source, signals) -> signals.forEach(s -> ear.accept(source, s)));
    }

    /** In words, who says more than is heard, or did in the last seconds. */
    public synchronized List<String> words() {
        long now = clock.nanos();
        List<String> words = new ArrayList<>();
        sources.forEach((source, said) -> {
            said.isOver &= now - said.overNanos <= TOLD_NANOS;
            if (said.isOver) {
                words.add("“" + source.name() + "” says more than " + FREE * 10
                        + " things a second. Its orders are heard, and of each of its controls the last value"
                        + (said.dropped == 0 ? "." : "; " + said.dropped + " were too many even for that."));
            } else {
                said.dropped = 0;
            }
        });
        return words;
    }

    private boolean makeRoom(long now) {
        Iterator<Said> all = sources.values().iterator();
        long window = Math.floorDiv(now, WINDOW_NANOS);
        while (all.hasNext()) {
            Said said = all.next();
            if (said.held.isEmpty() && said.window != window) {
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
