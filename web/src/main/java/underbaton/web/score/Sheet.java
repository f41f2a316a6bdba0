package underbaton.web.score;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import underbaton.core.rig.Department;

/**
 * A song's score as it stands on the paper: what the page gets. All measures are in pixels. The records are public because
 * the template's expressions are compiled for public types alone.
 *
 * @param beats for each beat its time in ms and its place, for a strip that runs under the baton line
 * @param same places, from 0, of lines that the page has before it already
 */
public record Sheet(
        List<Line> lines,
        double width,
        double height,
        List<Department> departments,
        int bars,
        String beats,
        Set<Integer> same) {

    /** This sheet for a page that has another one before it. */
    Sheet since(Sheet before) {
        boolean alike = lines.size() == before.lines.size() && width == before.width && height == before.height;
        return new Sheet(
                lines,
                width,
                height,
                departments,
                bars,
                beats,
                IntStream.range(0, alike ? lines.size() : 0)
                        .filter(i -> lines.get(i).equals(before.lines.get(i)))
                        .boxed()
                        .collect(Collectors.toSet()));
    }

    public double lineHeight() {
        return height / lines.size();
    }

    /** For the script: the codes of the staves, {@code lx vd}. */
    public String depts() {
        return departments.stream().map(d -> d.code().toLowerCase(Locale.ROOT)).collect(Collectors.joining(" "));
    }

    /** One line of music. */
    public record Line(
            double y,
            double from,
            double to,
            double first,
            double last,
            List<Staff> staves,
            List<Bar> bars,
            List<Sign> tempi,
            List<Meter> meters,
            List<Letter> letters,
            List<Note> notes,
            List<Curve> curves,
            List<Span> vamps,
            List<Span> films,
            List<Sign> holds,
            List<Left> lefts,
            List<Proposed> proposed) {

        /** The brace before its staves, as a path. */
        public String brace() {
            double half = (to - from) / 2;
            return "M86 %s q-7 %s 0 %s q-7 %s 0 %s".formatted(from, half / 2, half, half / 2, half);
        }

        /** For the script: where its staves stand. */
        public String places() {
            return staves.stream().map(s -> Double.toString(s.y)).collect(Collectors.joining(" "));
        }
    }

    public record Staff(Department department, double y) {}

    /** @param beats the x of each of its beats, with their ticks */
    public record Bar(int number, double x, double end, boolean numbered, List<Beat> beats) {

        /** Its beats for the script: tick, x and number of each, {@code 0:130.5:1 960:162.2:2}. */
        public String places() {
            return beats.stream()
                    .map(b -> b.tick + ":" + Math.round(b.x * 10) / 10.0 + ":" + b.place)
                    .collect(Collectors.joining(" "));
        }
    }

    /** @param place of it in the bar as people write it: the beat, and the tick behind it where it is not 0 */
    public record Beat(long tick, double x, String place) {}

    public record Sign(double x, String text) {}

    public record Meter(double x, int top, int bottom, String counted) {}

    /** @param was the mark of the section, for a form that changes it */
    public record Letter(double x, String letter, String name, int bar, String was) {}

    /**
     * @param cell what its cue says to this machine as the Book writes it, where that is not just what is told; else empty
     * @param doubt what of it cannot be meant as it is written, in words; empty when all is well
     */
    public record Note(
            int cueId,
            int deviceId,
            String dept,
            double x,
            double y,
            boolean hollow,
            String label,
            String told,
            String cell,
            String doubt,
            String copy,
            long tick) {

        /** Its classes. */
        public String kind() {
            return "note " + dept + (hollow ? " hollow" : "") + (copy.isEmpty() ? "" : " copy")
                    + (doubt.isEmpty() ? "" : " astray");
        }

        public String place() {
            return "translate(" + Math.round(x * 10) / 10.0 + "," + y + ")";
        }
    }

    /** A cue of another section that does not come in this one. */
    public record Left(int cueId, String copy, String dept, double x, double y, String told, long tick) {}

    /** Where GO came for a cue that waits for it. */
    public record Proposed(double x, String number) {}

    public record Curve(String dept, String kind, String path) {}

    public record Span(double x, double end, boolean begins, boolean ends, String text, boolean wrong) {
        /** A curly bracket along it, its point in the middle, as a path. @param under the lowest staff */
        public String bracket(double under) {
            return "M%s %s q2 9 10 9 H%s q7 0 8 7 q1 -7 8 -7 H%s q8 0 10 -9"
                    .formatted(x, under + 10, (x + end) / 2 - 8, end - 10);
        }
    }
}
