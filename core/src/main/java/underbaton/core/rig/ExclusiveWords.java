package underbaton.core.rig;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.Exclusive;
import underbaton.core.midi.FullFrame;
import underbaton.core.midi.MachineControl;
import underbaton.core.midi.ShowControl;
import underbaton.core.midi.SysEx;
import underbaton.core.midi.TimeCode;
import underbaton.core.midi.TimeCode.Rate;

/**
 * System exclusives in words: {@code show control go 8 list 36 to 2 format 01}, {@code show control set 5 value 300 to 2 format 01},
 * {@code show control fire 12 to 2 format 01}, {@code machine control locate 01:02:03:04 at 25 fps to 127}, {@code time code
 * 01:02:03:04 at 25 fps to 127}, and all others as bytes. What is written is read back the same.
 */
final class ExclusiveWords {

    private static final String CLOCK =
            "(\\d{1,2}):(\\d{2}):(\\d{2}):(\\d{2})(?:\\.(\\d{2}))?(?: at (24|25|29\\.97|30) fps)?";
    private static final String TO = " to (\\d+)(?: format ([0-9a-f]{2}))?";

    private static final Pattern SYSEX = Pattern.compile("sysex ?([0-9a-f ]*)");
    private static final Pattern SET = Pattern.compile("show control set (\\d+) value (\\d+)" + TO);
    private static final Pattern FIRE = Pattern.compile("show control fire (\\d+)" + TO);
    private static final Pattern SHOW_CONTROL =
            Pattern.compile("show control ([a-z ]+?)(?: ([0-9.]+))?(?: list ([0-9.]+))?(?: path ([0-9.]+))?(?: in "
                    + CLOCK + ")?" + TO);
    private static final Pattern MACHINE_CONTROL =
            Pattern.compile("machine control ([a-z ]+?)(?: " + CLOCK + ")? to (\\d+)");
    private static final Pattern FULL_FRAME = Pattern.compile("time code " + CLOCK + "(?: to (\\d+))?");

    private static final int EVERYONE = 127;
    /** MIDI Show Control 1.0, the two commands whose data are no cue numbers; their data from memory of RP-002. */
    private static final int SUB_ID = 0x02;

    private static final int SET_NUMBER = 0x06;
    private static final int FIRE_NUMBER = 0x07;
    private static final int SET_LENGTH = 9;
    private static final int FIRE_LENGTH = 6;

    private ExclusiveWords() {}

    // ---- writing

    static String write(Exclusive message) {
        if (message instanceof ShowControl m) {
            return "show control " + word(m.command())
                    + after(" ", m.cue()) + after(" list ", m.list()) + after(" path ", m.path())
                    + m.time().map(ExclusiveWords::within).orElse("")
                    + to(m.device(), m.format());
        } else if (message instanceof MachineControl m) {
            return "machine control " + word(m.command())
                    + m.target().map(t -> " " + clock(t) + rate(t)).orElse("") + " to " + m.device();
        } else if (message instanceof FullFrame m) {
            return "time code " + clock(m.time()) + rate(m.time()) + " to " + m.device();
        }
        Bytes body = ((SysEx) message).body();
        return isShowControl(body, SET_NUMBER, SET_LENGTH)
                ? "show control set " + fourteen(body, 5) + " value " + fourteen(body, 7) + to(body.at(1), body.at(3))
                : isShowControl(body, FIRE_NUMBER, FIRE_LENGTH)
                        ? "show control fire " + body.at(5) + to(body.at(1), body.at(3))
                        : "sysex " + body.hex();
    }

    private static boolean isShowControl(Bytes body, int command, int length) {
        return body.length() == length && body.at(0) == 0x7F && body.at(2) == SUB_ID && body.at(4) == command;
    }

    private static int fourteen(Bytes body, int at) {
        return body.at(at) | body.at(at + 1) << 7;
    }

    private static String to(int device, int format) {
        return " to " + device + " format " + Bytes.of(format).hex();
    }

    private static String within(ShowControl.Time time) {
        String hundredths = time.hundredths() == 0 ? "" : ".%02d".formatted(time.hundredths());
        return " in " + clock(time.code()) + hundredths + rate(time.code());
    }

    private static String clock(TimeCode t) {
        return "%02d:%02d:%02d:%02d".formatted(t.hours(), t.minutes(), t.seconds(), t.frames());
    }

    private static String rate(TimeCode t) {
        return " at " + t.rate().words() + " fps";
    }

    private static String after(String lead, String text) {
        return text.isEmpty() ? "" : lead + text;
    }

    // ---- reading

    /**
     * @param text in lower case, with single blanks
     * @return empty when it is none of these
     * @throws IllegalArgumentException saying what cannot be sent
     */
    static Optional<Exclusive> read(String text) {
        Matcher m;
        if ((m = SYSEX.matcher(text)).matches()) {
            return Optional.of(new SysEx(withoutFrame(Bytes.ofHex(m.group(1)))));
        } else if ((m = SET.matcher(text)).matches()) {
            int control = Wording.requireWithin("control", number(m.group(1)), 0, 0x3FFF);
            int value = Wording.requireWithin("value", number(m.group(2)), 0, 0x3FFF);
            return Optional.of(showControl(
                    m.group(3), m.group(4), SET_NUMBER, control & 0x7F, control >> 7, value & 0x7F, value >> 7));
        } else if ((m = FIRE.matcher(text)).matches()) {
            int macro = Wording.requireWithin("macro", number(m.group(1)), 0, 127);
            return Optional.of(showControl(m.group(2), m.group(3), FIRE_NUMBER, macro));
        } else if ((m = SHOW_CONTROL.matcher(text)).matches()) {
            return Optional.of(showControl(m));
        } else if ((m = MACHINE_CONTROL.matcher(text)).matches()) {
            MachineControl.Command command = constant(MachineControl.Command.values(), m.group(1));
            return Optional.of(new MachineControl(number(m.group(8)), command, clock(m, 2)));
        } else if ((m = FULL_FRAME.matcher(text)).matches()) {
            int device = m.group(7) == null ? EVERYONE : number(m.group(7));
            return Optional.of(new FullFrame(device, clock(m, 1).orElseThrow()));
        }
        return Optional.empty();
    }

    private static ShowControl showControl(Matcher m) {
        Optional<ShowControl.Time> time = clock(m, 5)
                .map(code -> new ShowControl.Time(code, m.group(9) == null ? 0 : Integer.parseInt(m.group(9))));
        return new ShowControl(
                number(m.group(11)),
                format(m.group(12)),
                constant(ShowControl.Command.values(), m.group(1)),
                orEmpty(m.group(2)),
                orEmpty(m.group(3)),
                orEmpty(m.group(4)),
                time);
    }

    private static SysEx showControl(String device, String format, int command, int... data) {
        Bytes head = Bytes.of(
                0x7F, Wording.requireWithin("device", number(device), 0, 127), SUB_ID, format(format), command);
        return new SysEx(head.then(Bytes.of(data)));
    }

    private static int format(String typed) {
        return typed == null ? ShowControl.LIGHTING : Integer.parseInt(typed, 16);
    }

    /** @param group the first of {@link #CLOCK} */
    private static Optional<TimeCode> clock(Matcher m, int group) {
        if (m.group(group) == null) {
            return Optional.empty();
        }
        String fps = m.group(group + 5);
        Rate rate = Arrays.stream(Rate.values())
                .filter(r -> r.words().equals(fps))
                .findFirst()
                .orElse(Rate.FULL_30);
        return Optional.of(new TimeCode(
                rate,
                Integer.parseInt(m.group(group)),
                Integer.parseInt(m.group(group + 1)),
                Integer.parseInt(m.group(group + 2)),
                Integer.parseInt(m.group(group + 3))));
    }

    /** People paste exclusives with and without their F0 and F7. */
    private static Bytes withoutFrame(Bytes typed) {
        boolean framed = typed.length() > 1 && typed.at(0) == 0xF0 && typed.at(typed.length() - 1) == 0xF7;
        return framed ? typed.slice(1, typed.length() - 1) : typed;
    }

    private static <E extends Enum<E>> E constant(E[] all, String text) {
        for (E each : all) {
            if (word(each).equals(text)) {
                return each;
            }
        }
        throw new IllegalArgumentException("there is no command “" + text + "”");
    }

    static String word(Enum<?> constant) {
        return constant.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    private static int number(String digits) {
        return Wording.number(digits);
    }

    private static String orEmpty(String group) {
        return group == null ? "" : group;
    }
}
