package underbaton.web.shows;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import underbaton.core.cue.Motion;
import underbaton.core.cue.Motion.Form;
import underbaton.core.cue.Motion.Move;
import underbaton.core.cue.Motion.Point;
import underbaton.core.cue.Motion.Shape;
import underbaton.core.cue.Motion.Wave;
import underbaton.core.cue.Span;

/** Motions as their column holds them: in numbers that do not change with a machine's numbering or names. */
final class MotionText {

    private static final String PART = "|";

    private MotionText() {}

    static String write(Motion motion) {
        if (motion instanceof Move m) {
            String points =
                    m.points().stream().map(p -> p.place() + "=" + p.amount()).collect(Collectors.joining(" "));
            return String.join(PART, "move", m.lasts().toString(), m.shape().name(), points, "" + m.thenPhraseId());
        }
        Wave w = (Wave) motion;
        return String.join(
                PART,
                "wave",
                w.form().name(),
                "" + w.depth(),
                w.period().toString(),
                "" + w.least(),
                "" + w.most(),
                w.lasts().toString());
    }

    static Optional<Motion> read(String text) {
        String[] parts = text.split("\\|", -1);
        if (parts[0].equals("move")) {
            List<Point> points = Stream.of(parts[3].split(" "))
                    .filter(p -> !p.isEmpty())
                    .map(p -> p.split("="))
                    .map(p -> new Point(Double.parseDouble(p[0]), Double.parseDouble(p[1])))
                    .toList();
            return Optional.of(
                    new Move(Span.of(parts[1]), Shape.valueOf(parts[2]), points, Integer.parseInt(parts[4])));
        }
        if (parts[0].equals("wave")) {
            return Optional.of(new Wave(
                    Form.valueOf(parts[1]),
                    Double.parseDouble(parts[2]),
                    Span.of(parts[3]),
                    Double.parseDouble(parts[4]),
                    Double.parseDouble(parts[5]),
                    Span.of(parts[6])));
        }
        return Optional.empty();
    }
}
