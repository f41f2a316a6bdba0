package underbaton.core.cue;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import underbaton.core.cue.Motion.Form;
import underbaton.core.cue.Motion.Move;
import underbaton.core.cue.Motion.Point;
import underbaton.core.cue.Motion.Shape;
import underbaton.core.cue.Motion.Wave;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;

/**
 * Motions in words, as they stand behind an amount in a cell: {@code −15 dB in 3 s, S-curve, then Bed stop} and {@code 50 %
 * ± 20 % sine every 2 beats, within 10 % to 60 %, for 8 s}.
 */
final class MotionWording {

    private static final Pattern MOVE = Pattern.compile(
            "(?is)(.*?)\\b(?:in|over) " + Span.WRITTEN + "(?:(?:, *+| ++)(?!then )(.+?))?(?:(?:, ?| )then (.+))?");
    private static final Pattern WAVE = Pattern.compile(
            "(.+?) ?(?:±|\\+-) ?(\\S+(?: ?(?:%|dB))?) (sine|triangle|square|saw),? "
                    + "(?:(\\d{1,3}(?:\\.\\d{1,3})?) ?hz|every " + Span.WRITTEN
                    + ")(?:, ?within (.+?) to (.+?))?(?:, ?for "
                    + Span.WRITTEN + ")?",
            Pattern.CASE_INSENSITIVE);
    private static final Pattern POINT = Pattern.compile("(\\d{1,3}(?:\\.\\d{1,3})?) ?%: ?(\\S+(?: ?(?:dB|%))?)");

    private final Device device;
    private final Argument argument;

    /** @param argument of the phrase that is called */
    MotionWording(Device device, Argument argument) {
        this.device = device;
        this.argument = argument;
    }

    /** @param amount what is left of the text: the amount itself */
    record Parted(String amount, Optional<Motion> motion) {}

    /** @throws Refusal when what stands behind the amount cannot be read */
    Parted part(String typed) {
        Matcher move = MOVE.matcher(typed);
        Matcher wave = WAVE.matcher(typed);
        if (argument.moves() && wave.matches()) {
            return new Parted(wave.group(1).strip(), Optional.of(wave(wave)));
        }
        if (argument.moves() && move.matches()) {
            return new Parted(move.group(1).strip(), Optional.of(move(move)));
        }
        requireNothingBehind(typed);
        return new Parted(typed, Optional.empty());
    }

    /** Where an amount stands and something behind it cannot be read, that is what is wrong. */
    private void requireNothingBehind(String typed) {
        for (int blank = typed.lastIndexOf(' ');
                argument.moves() && blank > 0;
                blank = typed.lastIndexOf(' ', blank - 1)) {
            String amount = typed.substring(0, blank);
            if (argument.isAmount(amount, device.numbering()) && !argument.isAmount(typed, device.numbering())) {
                throw new Refusal(
                        "cell",
                        "Behind the amount, “" + typed.substring(blank).strip()
                                + "” cannot be read; write for example: in 3 s, over 2 bars, in 3 s, S-curve, or "
                                + "± 6 dB sine every 2 beats.");
            }
        }
    }

    private Move move(Matcher m) {
        Span lasts = Span.of(m.group(2) + " " + m.group(3));
        if (lasts.thousandths() <= 0) {
            throw new Refusal("cell", "A move lasts longer than nothing; write for example: in 3 s.");
        }
        String way = m.group(4) == null ? "" : m.group(4).strip();
        int then = m.group(5) == null ? 0 : phrase(m.group(5).strip()).id();
        if (way.toLowerCase(Locale.ROOT).startsWith("through ")) {
            return new Move(lasts, Shape.POINTS, points(way.substring(8)), then);
        }
        for (Shape shape : Shape.values()) {
            if (shape != Shape.POINTS && plain(shape.words()).equals(plain(way))) {
                return new Move(lasts, shape, List.of(), then);
            }
        }
        throw new Refusal(
                "cell",
                "“" + way + "” is no way to move; write: by value, S-curve, equal power, or through 50 %: −12 dB. "
                        + "Without it the move is even.");
    }

    /** {@code S-curve}, {@code s curve}. */
    private static String plain(String words) {
        return words.toLowerCase(Locale.ROOT).replace('-', ' ');
    }

    private List<Point> points(String text) {
        List<Point> points = new ArrayList<>();
        for (String part : text.split(" and ")) {
            Matcher m = POINT.matcher(part.strip());
            double place = m.matches() ? Double.parseDouble(m.group(1)) / 100 : -1;
            boolean rises =
                    points.isEmpty() || place > points.get(points.size() - 1).place();
            if (place <= 0 || place >= 1 || !rises) {
                throw new Refusal(
                        "cell",
                        "“" + part.strip() + "” is no point on the way; write: through 25 %: −8 dB and 50 %: −12 dB.");
            }
            points.add(new Point(place, measure(m.group(2))));
        }
        return points;
    }

    private Phrase phrase(String name) {
        return device.phraseNamed(name)
                .filter(p -> p.argument().isEmpty())
                .orElseThrow(() -> new Refusal(
                        "cell",
                        device.name() + " has no phrase “" + name
                                + "” that could be called at the end; name one that takes no amount."));
    }

    private Wave wave(Matcher m) {
        Form form = Form.valueOf(m.group(3).toUpperCase(Locale.ROOT));
        double depth = Math.abs(Double.parseDouble(number(m.group(2))));
        Span period = m.group(4) != null
                ? Span.ofMillis((int) Math.round(1000 / Double.parseDouble(m.group(4))))
                : Span.of(m.group(5) + " " + m.group(6).toLowerCase(Locale.ROOT));
        if (period.thousandths() < 20) {
            throw new Refusal("cell", "A wave is at most 50 Hz.");
        }
        double least = m.group(7) == null ? Double.NEGATIVE_INFINITY : measure(m.group(7));
        double most = m.group(8) == null ? Double.POSITIVE_INFINITY : measure(m.group(8));
        Span lasts = m.group(9) == null
                ? Span.ZERO
                : Span.of(m.group(9) + " " + m.group(10).toLowerCase(Locale.ROOT));
        return new Wave(form, depth, period, least, most, lasts);
    }

    private static String number(String typed) {
        String digits = typed.replaceAll("(?i) ?(%|db)$", "").replace(',', '.');
        if (!digits.matches("\\d{1,3}(\\.\\d{1,3})?")) {
            throw new Refusal("cell", "“" + typed + "” is no depth of a wave; write for example: ± 6 dB.");
        }
        return digits;
    }

    private double measure(String typed) {
        return ((Amount.Measure) argument.read(typed, device.numbering(), device.levels())).value();
    }

    /** What stands behind the amount; begins with a blank. */
    String tell(Motion motion) {
        if (motion instanceof Wave w) {
            boolean clamped = w.least() != Double.NEGATIVE_INFINITY || w.most() != Double.POSITIVE_INFINITY;
            return " ± " + Amount.plain(w.depth()) + unit() + " " + w.form().words() + " every " + w.period()
                    + (clamped ? ", within " + write(w.least()) + " to " + write(w.most()) : "")
                    + (w.lasts().thousandths() == 0 ? "" : ", for " + w.lasts());
        }
        Move m = (Move) motion;
        String way = m.shape().words();
        if (m.shape() == Shape.POINTS) {
            way += " "
                    + m.points().stream()
                            .map(p -> Amount.plain(p.place() * 100) + " %: " + write(p.amount()))
                            .collect(Collectors.joining(" and "));
        }
        String then =
                device.phrase(m.thenPhraseId()).map(p -> ", then " + p.name()).orElse("");
        return " in " + m.lasts() + (way.isEmpty() ? "" : ", " + way) + then;
    }

    /** Of the depth of a wave. */
    private String unit() {
        return switch (argument.unit()) {
            case DECIBELS -> " dB";
            case PER_CENT -> " %";
            default -> "";
        };
    }

    private String write(double amount) {
        return argument.write(new Amount.Measure(amount), device.numbering());
    }
}
