package underbaton.core.signal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.MachineControl;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.MidiParser;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.ShowControl;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Refusal;

/**
 * What each pattern takes. The bytes are those of the MIDI 1.0 specification, of RP-002/014 and RP-013; wild cards are those of OSC
 * 1.0; that a pedal is on from 64 is MIDI 1.0's too.
 */
class PatternTest {

    static Stream<Arguments> rows() throws Exception {
        try (InputStream table = PatternTest.class.getResourceAsStream("patterns.txt")) {
            List<String> lines = new String(table.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(l -> !l.isBlank() && !l.startsWith("#"))
                    .toList();
            assertThat(lines).hasSizeGreaterThan(120);
            return lines.stream()
                    .map(l ->
                            Arrays.stream(l.split("\\|", -1)).map(String::strip).toArray(String[]::new))
                    .map(c -> Arguments.of(c[0], c[1], c[2], c[3]));
        }
    }

    @ParameterizedTest(name = "{0}, after “{1}”: {2}")
    @MethodSource("rows")
    void takesOrSaysWhyNot(String pattern, String before, String said, String why) {
        Message message = message(said);
        Pattern p = pattern(pattern);
        String told = p.speaksOf(message)
                ? p.missed(message, memory(before), Numbering.WIRE).orElse("")
                : "another kind";
        assertThat(told).isEqualTo(why);
    }

    private static Memory memory(String before) {
        boolean bank = before.startsWith("bank ");
        OptionalInt number =
                before.isEmpty() ? OptionalInt.empty() : OptionalInt.of(Integer.parseInt(before.replace("bank ", "")));
        return new Memory(bank ? OptionalInt.empty() : number, bank ? number : OptionalInt.empty());
    }

    private static Message message(String said) {
        if (!said.startsWith("/")) {
            List<MidiMessage> heard = new ArrayList<>();
            byte[] bytes = Bytes.ofHex(said).toArray();
            MidiParser.Sink sink = new MidiParser.Sink() {
                @Override
                public void message(MidiMessage message) {
                    heard.add(message);
                }

                @Override
                public void trouble(MidiParser.Trouble trouble) {
                    throw new IllegalArgumentException(said + ": " + trouble);
                }
            };
            new MidiParser(200, sink).accept(bytes, 0, bytes.length);
            return heard.get(0);
        }
        String[] words = said.split(" ", 2);
        return new OscMessage(words[0], words.length == 1 ? List.of() : List.of(argument(words[1])));
    }

    private static Object argument(String written) {
        if (written.startsWith("\"")) {
            return written.substring(1, written.length() - 1);
        }
        if (written.equals("true")) {
            return true;
        }
        return written.contains(".") ? (Object) Float.parseFloat(written) : (Object) Integer.parseInt(written);
    }

    private static Pattern pattern(String words) {
        String[] w = words.split(" ");
        int number = w.length > 1 && w[1].matches("-?\\d+") ? Integer.parseInt(w[1]) : -1;
        return switch (w[0]) {
            case "note" ->
                words.contains("velocity")
                        ? new Pattern.Note(number, number, Integer.parseInt(w[3]), Integer.parseInt(w[5]), true)
                        : words.contains("let go")
                                ? new Pattern.Note(number, number, 1, 127, false)
                                : Pattern.Note.struck(number);
            case "notes" -> new Pattern.Note(number, Integer.parseInt(w[3]), 1, 127, true);
            case "control" -> controller(w, number);
            case "program" -> program(-1, w, 1);
            case "bank" -> program(number, w, 3);
            case "bend" -> new Pattern.Bend(number == -1 && w.length < 3 ? -1 : Integer.parseInt(w[1]), last(w));
            case "show" -> new Pattern.Show(ShowControl.Command.valueOf(w[1]), after(w, "list"), after(w, "cue"));
            case "machine" -> new Pattern.Machine(MachineControl.Command.valueOf(w[1]));
            case "song" -> new Pattern.Song(number, last(w));
            case "clock" -> new Pattern.Transport(Pattern.Move.valueOf(w[1]));
            default ->
                new Pattern.Osc(
                        w[1],
                        w.length == 2 ? List.of() : List.of(new Condition(0, Condition.Relation.valueOf(w[2]), w[3])));
        };
    }

    private static Pattern controller(String[] w, int number) {
        return switch (w[2]) {
            case "pressed" -> new Pattern.Controller(number, Pattern.Way.PRESSED, w.length > 3 ? last(w) : 64, 127);
            case "released" -> new Pattern.Controller(number, Pattern.Way.RELEASED, 64, 127);
            case "at" -> new Pattern.Controller(number, Pattern.Way.WITHIN, Integer.parseInt(w[3]), last(w));
            default -> new Pattern.Controller(number, Pattern.Way.CHANGED, last(w), 127);
        };
    }

    private static Pattern program(int bank, String[] w, int at) {
        return w[at].equals("any")
                ? new Pattern.Program(bank, 0, 127)
                : new Pattern.Program(bank, Integer.parseInt(w[at]), last(w));
    }

    private static int last(String[] words) {
        return Integer.parseInt(words[words.length - 1]);
    }

    private static String after(String[] words, String word) {
        int at = Arrays.asList(words).indexOf(word);
        return at < 0 ? "" : words[at + 1];
    }

    @Test
    void patternsAreToldInTheNumbersOfWhoeverSaysIt() {
        Numbering console = new Numbering(1, 1, -1);
        assertThat(new Pattern.Program(-1, 7, 7).words(console)).isEqualTo("program 8");
        assertThat(new Pattern.Program(-1, 7, 7).words(Numbering.WIRE)).isEqualTo("program 7");
        assertThat(Pattern.Note.struck(60).words(console)).isEqualTo("note C4 struck");
        assertThat(Pattern.Controller.pressed(67).words(console)).isEqualTo("control 67 pressed");
        assertThat(new Pattern.Show(ShowControl.Command.GO, "36", "8").words(console))
                .isEqualTo("show control GO cue 8 list 36");
    }

    @Test
    void whatCannotBeIsRefused() {
        assertThatThrownBy(() -> new Pattern.Note(60, 59, 1, 127, true)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Pattern.Note(60, 60, 0, 127, true))
                .hasMessageContaining("Velocities are 1 to 127");
        assertThatThrownBy(() -> new Pattern.Osc("/a/[0-", List.of())).hasMessageContaining("not closed");
        assertThatThrownBy(() -> new Pattern.Osc("cue go", List.of()))
                .hasMessageContaining("begins with /".toLowerCase(Locale.ROOT));
    }
}
