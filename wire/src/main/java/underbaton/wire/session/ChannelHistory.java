package underbaton.wire.session;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Controllers;
import underbaton.wire.session.SentHistory.Told;

/**
 * What one peer has been told on one channel since it last acknowledged, and its journal (RFC 6295 appendix A): program
 * with bank (chapter P), controllers, oldest first (C), registered and other parameters (M), bend (W), notes (N), pressure
 * (T, A). A controller that was sent again with the value that it had carries its count besides (the count tool), so that
 * a “next” that is lost is not lost for good. Not thread-safe.
 */
final class ChannelHistory {

    private static final int QUIET = 0x80;
    private static final int HEADER = 3;
    private static final int DATA_HIGH = 6;
    private static final int DATA_LOW = 38;
    /** E of chapter M: a parameter has been chosen and not closed. */
    private static final int TRANSACTION_OPEN = 0x2000;

    private static final int FIRST_SELECTION = 98;
    private static final int LAST_SELECTION = 101;
    /** Of notes and of controllers: seven bits say how many there are. */
    private static final int MOST_LOGS = 127;
    /** The longest channel journal whose length ten bits can say. */
    private static final int MOST_BYTES = 1023;

    private final int number;
    private Told<Program> program;
    private int bankHigh = -1;
    private int bankLow = -1;
    private final Map<Integer, Told<Integer>> controllers = new LinkedHashMap<>();
    private final int[] values = new int[128];
    private final int[] counts = new int[128];
    private final boolean[] counted = new boolean[128];
    private final Map<Parameter, Told<Entry>> parameters = new LinkedHashMap<>();
    private final Map<Parameter, Entry> entries = new LinkedHashMap<>();
    private final int[] selection = {-1, -1, -1, -1};
    private boolean registered;
    /** The parameter that was chosen last; null for none. */
    private Parameter choice;

    private Told<Integer> bend;
    private final Map<Integer, Told<Integer>> notes = new LinkedHashMap<>();
    private Told<Integer> pressure;
    private final Map<Integer, Told<Integer>> keyPressures = new LinkedHashMap<>();

    /** A program with the bank that was chosen before it; bank −1 for none. */
    private record Program(int program, int bankHigh, int bankLow) {}

    /** A registered parameter, or one of the maker's own. */
    record Parameter(boolean own, int high, int low) {}

    /** Its data; −1 for what was not said. */
    private record Entry(int high, int low) {}

    /** @param number 0–15 */
    ChannelHistory(int number) {
        this.number = number;
        Arrays.fill(values, -1);
    }

    boolean isEmpty() {
        return program == null
                && bend == null
                && pressure == null
                && controllers.isEmpty()
                && parameters.isEmpty()
                && notes.isEmpty()
                && keyPressures.isEmpty();
    }

    void forgetUpTo(long packet) {
        program = program != null && program.until(packet) ? null : program;
        bend = bend != null && bend.until(packet) ? null : bend;
        pressure = pressure != null && pressure.until(packet) ? null : pressure;
        controllers.values().removeIf(t -> t.until(packet));
        parameters.values().removeIf(t -> t.until(packet));
        notes.values().removeIf(t -> t.until(packet));
        keyPressures.values().removeIf(t -> t.until(packet));
    }

    /** The packet of the oldest thing that is still said. */
    long oldest() {
        long oldest = Long.MAX_VALUE;
        for (Told<?> told : all()) {
            oldest = Math.min(oldest, told.packet());
        }
        return oldest;
    }

    private List<Told<?>> all() {
        List<Told<?>> all = new ArrayList<>(controllers.values());
        all.addAll(parameters.values());
        all.addAll(notes.values());
        all.addAll(keyPressures.values());
        for (Told<?> one : Arrays.asList(program, bend, pressure)) {
            if (one != null) {
                all.add(one);
            }
        }
        return all;
    }

    // ---- what is sent

    /** @param packet the number of the packet that carries it */
    void sent(ChannelMessage message, long packet) {
        if (message instanceof ProgramChange p) {
            program = new Told<>(new Program(p.program(), bankHigh, bankLow), 0, packet);
            controllers.remove(0);
            controllers.remove(32);
        } else if (message instanceof ControlChange c) {
            control(c, packet);
        } else if (message instanceof NoteOn on) {
            again(notes, on.note(), new Told<>(on.velocity() > 0 ? on.velocity() : -1, 0, packet));
        } else if (message instanceof NoteOff off) {
            again(notes, off.note(), new Told<>(-1, 0, packet));
        } else if (message instanceof PitchBend b) {
            bend = new Told<>(b.bend(), 0, packet);
        } else if (message instanceof ChannelPressure p) {
            pressure = new Told<>(p.pressure(), 0, packet);
        } else if (message instanceof PolyPressure p) {
            again(keyPressures, p.note(), new Told<>(p.pressure(), 0, packet));
        } else if (message instanceof BankProgram) {
            throw new IllegalArgumentException("a bank and its program are sent as their single commands");
        }
    }

    /** As the newest of all. */
    private static <K, T> void again(Map<K, Told<T>> map, K key, Told<T> told) {
        map.remove(key);
        map.put(key, told);
    }

    private void control(ControlChange c, long packet) {
        int controller = c.controller();
        if (controller >= FIRST_SELECTION && controller <= LAST_SELECTION) {
            selection[controller - FIRST_SELECTION] = c.value();
            registered = controller >= 100;
            chosen(packet);
            return;
        }
        if ((controller == DATA_HIGH || controller == DATA_LOW) && selected().isPresent()) {
            Parameter parameter = selected().get();
            Entry before = data(parameter);
            Entry now = controller == DATA_HIGH ? new Entry(c.value(), -1) : new Entry(before.high, c.value());
            entries.put(parameter, now);
            again(parameters, parameter, new Told<>(now, 0, packet));
            return;
        }
        counted[controller] |= values[controller] == c.value();
        values[controller] = c.value();
        counts[controller] = counts[controller] + 1 & 0x3F;
        again(controllers, controller, new Told<>(c.value(), counts[controller], packet));
        if (controller == 0) {
            bankHigh = c.value();
            bankLow = Math.max(0, bankLow);
        } else if (controller == 32) {
            bankLow = c.value();
            bankHigh = Math.max(0, bankHigh);
        } else if (controller == Controllers.ALL_SOUND_OFF || controller == Controllers.ALL_NOTES_OFF) {
            notes.replaceAll((note, told) -> new Told<>(-1, 0, packet));
        }
    }

    /** A choice takes the place of one that was given no data; so does each half of a number, in whatever order they come. */
    private void chosen(long packet) {
        if (!entries.containsKey(choice)) {
            parameters.remove(choice);
        }
        choice = selected().orElse(null);
        if (choice != null) {
            again(parameters, choice, new Told<>(data(choice), 0, packet));
        }
    }

    private Entry data(Parameter parameter) {
        return entries.getOrDefault(parameter, new Entry(-1, -1));
    }

    /** The parameter that data entries go to; empty before both halves of its number were sent. */
    private Optional<Parameter> selected() {
        int low = selection[registered ? 2 : 0];
        int high = selection[registered ? 3 : 1];
        return low < 0 || high < 0 ? Optional.empty() : Optional.of(new Parameter(!registered, high, low));
    }

    /** Whether data entries that come now go to a parameter; 127, 127 is the one that closes (MIDI 1.0, registered parameters). */
    private boolean isOpen() {
        return selected().filter(p -> p.high != 127 || p.low != 127).isPresent();
    }

    // ---- what is written

    /** Header S CHAN H LENGTH, table of contents P C M W N E T A, then the chapters in that order. */
    byte[] journal(long before) {
        ByteArrayOutputStream chapters = new ByteArrayOutputStream();
        int contents = 0;
        if (program != null) {
            contents |= 0x80;
            chapterP(before, chapters);
        }
        if (!controllers.isEmpty()) {
            contents |= 0x40;
            chapterC(before, chapters);
        }
        if (!parameters.isEmpty()) {
            contents |= 0x20;
            chapterM(before, chapters);
        }
        if (bend != null) {
            contents |= 0x10;
            chapters.write(quiet(bend, before) | bend.value() & 0x7F);
            chapters.write(bend.value() >> 7);
        }
        if (!notes.isEmpty()) {
            contents |= 0x08;
            chapterN(before, chapters);
        }
        if (pressure != null) {
            contents |= 0x02;
            chapters.write(quiet(pressure, before) | pressure.value());
        }
        if (!keyPressures.isEmpty()) {
            contents |= 0x01;
            chapterA(before, chapters);
        }
        int length = Math.min(MOST_BYTES, HEADER + chapters.size());
        boolean quiet = all().stream().allMatch(t -> t.packet() != before);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write((quiet ? QUIET : 0) | number << 3 | length >> 8);
        out.write(length);
        out.write(contents);
        out.writeBytes(chapters.toByteArray());
        return out.toByteArray();
    }

    private static int quiet(Told<?> told, long before) {
        return told.packet() != before ? QUIET : 0;
    }

    private static int quiet(Iterable<? extends Told<?>> all, long before) {
        for (Told<?> told : all) {
            if (told.packet() == before) {
                return 0;
            }
        }
        return QUIET;
    }

    private void chapterP(long before, ByteArrayOutputStream out) {
        Program p = program.value();
        boolean banked = p.bankHigh >= 0;
        out.write(quiet(program, before) | p.program);
        out.write(banked ? 0x80 | p.bankHigh : 0);
        out.write(banked ? p.bankLow : 0);
    }

    /** The value of each, and, where it counts, how often it was sent (A and T set). */
    private void chapterC(long before, ByteArrayOutputStream out) {
        ByteArrayOutputStream logs = new ByteArrayOutputStream();
        int room = MOST_LOGS + 1 - controllers.size();
        for (Map.Entry<Integer, Told<Integer>> entry : controllers.entrySet()) {
            int head = quiet(entry.getValue(), before) | entry.getKey();
            logs.write(head);
            logs.write(entry.getValue().value());
            if (counted[entry.getKey()] && room > 0) {
                room--;
                logs.write(head);
                logs.write(0xC0 | entry.getValue().number());
            }
        }
        out.write(quiet(controllers.values(), before) | logs.size() / 2 - 1);
        out.writeBytes(logs.toByteArray());
    }

    /** Header S P E U W Z LENGTH, then the parameters' logs: number, which fields, the fields (appendix A.4). */
    private void chapterM(long before, ByteArrayOutputStream out) {
        ByteArrayOutputStream logs = new ByteArrayOutputStream();
        parameters.forEach((parameter, told) -> {
            Entry data = told.value();
            logs.write(quiet(told, before) | parameter.low);
            logs.write((parameter.own ? 0x80 : 0) | parameter.high);
            // J: high part, K: low part, V: it is the value that is told.
            logs.write((data.high >= 0 ? 0x80 : 0) | (data.low >= 0 ? 0x40 : 0) | 0x02);
            if (data.high >= 0) {
                logs.write(data.high);
            }
            if (data.low >= 0) {
                logs.write(data.low);
            }
        });
        int open = isOpen() ? TRANSACTION_OPEN : 0;
        int header = quiet(parameters.values(), before) << 8 | open | 2 + logs.size();
        out.write(header >> 8);
        out.write(header);
        out.writeBytes(logs.toByteArray());
    }

    /**
     * Logs of notes that sound, then a bit for each note that ended, in the octets from LOW to HIGH. Of 128 notes that
     * sound at once the oldest is left out, so that the number of logs is always what its seven bits say.
     */
    private void chapterN(long before, ByteArrayOutputStream out) {
        List<Map.Entry<Integer, Told<Integer>>> on =
                notes.entrySet().stream().filter(e -> e.getValue().value() >= 0).toList();
        on = on.subList(Math.max(0, on.size() - MOST_LOGS), on.size());
        List<Map.Entry<Integer, Told<Integer>>> off =
                notes.entrySet().stream().filter(e -> e.getValue().value() < 0).toList();
        int low = off.stream().mapToInt(e -> e.getKey() / 8).min().orElse(15);
        // With LOW 15 and HIGH 0 a number of 127 would mean 128; HIGH 1 means 127 and no bits either.
        int high = off.stream().mapToInt(e -> e.getKey() / 8).max().orElse(on.size() == MOST_LOGS ? 1 : 0);
        out.write(quiet(off.stream().map(Map.Entry::getValue).toList(), before) | on.size());
        out.write(low << 4 | high);
        for (Map.Entry<Integer, Told<Integer>> note : on) {
            out.write(quiet(note.getValue(), before) | note.getKey());
            // Y: play it, even though it is late; a look that comes late is right and one that does not come is wrong.
            out.write(0x80 | note.getValue().value());
        }
        if (!off.isEmpty()) {
            byte[] bits = new byte[high - low + 1];
            off.forEach(e -> bits[e.getKey() / 8 - low] |= (byte) (0x80 >> e.getKey() % 8));
            out.writeBytes(bits);
        }
    }

    private void chapterA(long before, ByteArrayOutputStream out) {
        out.write(quiet(keyPressures.values(), before) | keyPressures.size() - 1);
        keyPressures.forEach((note, told) -> {
            out.write(quiet(told, before) | note);
            out.write(told.value());
        });
    }
}
