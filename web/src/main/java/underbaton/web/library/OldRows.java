package underbaton.web.library;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Motion;
import underbaton.core.cue.Motion.Form;
import underbaton.core.cue.Motion.Move;
import underbaton.core.cue.Motion.Point;
import underbaton.core.cue.Motion.Shape;
import underbaton.core.cue.Motion.Wave;
import underbaton.core.cue.Span;
import underbaton.core.cue.Start;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Levels;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.score.Score;

/**
 * The rows as they were up to version 7 of the database, with words in their columns. Only the migration reads them, and
 * nothing writes them any more.
 */
final class OldRows {

    private static final SpeechWording WIRE = new SpeechWording(Numbering.WIRE);
    private static final String OSC = "osc-";
    private static final String TEXT = "text ";
    private static final String NUMBER = "number ";

    private static final Pattern TEMPO_AT_ONE =
            Pattern.compile("1 ((?:dotted )?(?:half|quarter|eighth|sixteenth) = .*)");
    private static final Pattern SECTION = Pattern.compile("(?s)(\\d+) ([A-Z][A-Z0-9]?)(?: (.*))?");
    private static final Pattern LINKED = Pattern.compile("(?s)(?:(.*) )?as ([A-Z][A-Z0-9]?)(?: without [\\d., ]+)?");
    /** A section's name may hold what ends a line for others, so a line begins with a bar, or a pick-up. */
    private static final Pattern LINE_END = Pattern.compile("\\n(?=\\d+(?::\\d+)* |pick-up )");

    record DeviceRow(
            int showId,
            int id,
            String name,
            String department,
            String wire,
            String host,
            int port,
            String question,
            int channel,
            int firstProgram,
            int bankSize,
            String valueStyle,
            int firstOctave,
            boolean flats,
            int firstPlace,
            int leadMs,
            int settleMs,
            String levels,
            String listKind,
            int listFirst) {}

    record PhraseRow(
            int showId,
            int id,
            int deviceId,
            String name,
            String says,
            String argument,
            String effect,
            boolean guarded,
            boolean listed,
            String mark,
            String note,
            String heading) {}

    record ItemRow(int showId, int id, String kind, String name, int plannedSeconds, String score) {}

    record CueRow(
            int showId,
            int id,
            int itemId,
            BigDecimal number,
            String starts,
            String what,
            String mark,
            String note,
            int version) {}

    record CallRow(
            int showId, int cueId, int place, int deviceId, int phraseId, String amount, String motion, String late) {}

    private OldRows() {}

    /** @throws RuntimeException of any kind when the words cannot be read */
    static Device device(DeviceRow d) {
        return new Device(
                d.id(),
                d.name(),
                Department.valueOf(d.department()),
                connection(d),
                d.channel(),
                new Numbering(
                        d.firstProgram(),
                        d.bankSize(),
                        Numbering.Values.valueOf(d.valueStyle()),
                        d.firstOctave(),
                        d.flats(),
                        d.firstPlace()),
                d.leadMs(),
                d.settleMs(),
                Levels.of(d.levels(), Numbering.WIRE),
                d.listKind().isEmpty()
                        ? Optional.empty()
                        : Optional.of(new PositionList(PositionList.Kind.valueOf(d.listKind()), d.listFirst())),
                List.of());
    }

    private static Connection connection(DeviceRow d) {
        return switch (d.wire()) {
            case "network-midi" -> new Connection.NetworkMidi(d.host(), d.port());
            case "local-midi" -> new Connection.LocalMidi(d.host());
            default ->
                new Connection.Osc(
                        d.host(),
                        d.port(),
                        d.question(),
                        Stream.of(Connection.Carrier.values())
                                .filter(c -> d.wire().equals(OSC + c.code()))
                                .findFirst()
                                .orElse(Connection.Carrier.UDP));
        };
    }

    /** @throws RuntimeException of any kind when the words cannot be read */
    static Phrase phrase(PhraseRow p) {
        return new Phrase(
                p.id(),
                p.name(),
                WIRE.read(p.says()),
                p.argument().isEmpty() ? Optional.empty() : Optional.of(Argument.of(p.argument())),
                Effect.of(p.effect()),
                p.guarded(),
                p.listed(),
                new Remarks(Remarks.Mark.valueOf(p.mark()), p.note(), p.heading()));
    }

    /** @throws RuntimeException of any kind when the words cannot be read */
    static Item item(ItemRow i) {
        return new Item(
                i.id(),
                ItemKind.valueOf(i.kind()),
                i.name(),
                i.plannedSeconds(),
                i.score().isEmpty() ? Optional.empty() : Optional.of(score(i.score())),
                List.of());
    }

    /** @throws RuntimeException of any kind when the words cannot be read */
    static Cue cue(CueRow c, List<CallRow> calls) {
        return new Cue(
                c.id(),
                new CueNumber(c.number()),
                Start.of(c.starts()),
                c.what(),
                calls.stream().map(OldRows::call).toList(),
                Remarks.Mark.valueOf(c.mark()),
                c.note(),
                c.version());
    }

    private static Call call(CallRow c) {
        return new Call(
                c.deviceId(),
                c.phraseId(),
                amount(c.amount()),
                motion(c.motion()),
                c.late().isEmpty() ? Span.ZERO : Span.of(c.late()));
    }

    private static Optional<Amount> amount(String written) {
        if (written.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(
                written.startsWith(TEXT)
                        ? new Amount.Text(written.substring(TEXT.length()))
                        : new Amount.Measure(Double.parseDouble(written.substring(NUMBER.length()))));
    }

    private static Optional<Motion> motion(String text) {
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

    /**
     * A score out of its old words. They were not exact: a name could look like a link to another section, and a tempo at
     * the first beat behind a pick-up like one at the start. These are taken for what they were.
     */
    static Score score(String words) {
        try {
            return Score.of(words);
        } catch (Refusal unread) {
            return Score.of(exact(words));
        }
    }

    private static String exact(String words) {
        List<String> lines = List.of(LINE_END.split(words));
        boolean pickUp = lines.stream().anyMatch(l -> l.startsWith("pick-up "));
        Set<String> letters = lines.stream()
                .map(SECTION::matcher)
                .filter(Matcher::matches)
                .map(m -> m.group(2))
                .collect(Collectors.toSet());
        List<String> exact = new ArrayList<>();
        int atOne = 0;
        for (String line : lines) {
            Matcher tempo = TEMPO_AT_ONE.matcher(line);
            Matcher section = SECTION.matcher(line);
            if (tempo.matches()) {
                atOne++;
                exact.add(pickUp && atOne == 2 ? "1:1 " + tempo.group(1) : line);
            } else if (section.matches() && section.group(3) != null && !isLink(section.group(3), letters)) {
                exact.add(section.group(1) + " " + section.group(2) + " " + quoted(section.group(3)));
            } else {
                exact.add(line);
            }
        }
        return String.join("\n", exact);
    }

    private static boolean isLink(String says, Set<String> letters) {
        Matcher linked = LINKED.matcher(says);
        return linked.matches() && letters.contains(linked.group(2));
    }

    private static String quoted(String name) {
        StringBuilder quoted = new StringBuilder("\"");
        for (char c : name.toCharArray()) {
            boolean plain = c >= ' ' && c < 0x7F && c != '"' && c != '\\';
            quoted.append(plain ? "" + c : "\\u%04x".formatted((int) c));
        }
        return quoted.append('"').toString();
    }
}
